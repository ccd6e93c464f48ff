# frozen_string_literal: true

# Loads all that can be loaded without beginning anything, and looks up every constant that is named by its way.
#   ruby test/support/constants.rb lib/bavard
# Ends with 1, and names them, where some are nowhere.

LIB = File.expand_path(ARGV.fetch(0))
# They begin something when they are loaded, or rest on what is loaded when it is first wanted.
BEGINS = %r{/(?:run|waiting|serve|press|replay|import|unpack)\.rb\z|/migrations/|/commands/}
LATER = /\A(?:Argon2|Demo|Faraday|OAuth2|Rodauth)::/
STRING = /"(?:[^"\\]|\\.)*"/
WAY = /(?<![\w:.])[A-Z]\w*(?:::[A-Z]\w*)+/
FILES = Dir[File.join(LIB, "**/*.rb")].grep_v(BEGINS).sort.each { |file| require file }

def modules_of(text)
  text.scan(/^\s*(?:module|class) ([A-Z]\w*)/).flatten.each_with_object([Object]) do |name, all|
    all.unshift(all.first.const_get(name, false)) if all.first.const_defined?(name, false)
  end
end

def there?(name, modules)
  modules.any? do |one|
    name.split("::").inject(one) { |found, part| found.const_get(part) }
  rescue NameError, TypeError
    nil
  end
end

count = 0
missing = FILES.flat_map do |file|
  text = File.read(file)
  modules = modules_of(text)
  text.lines.reject { |line| line.lstrip.start_with?("#") }.flat_map { |line| line.gsub(STRING, "").scan(WAY) }.grep_v(LATER).uniq
    .tap { |names| count += names.size }.reject { |name| there?(name, modules) }.map { |name| "#{file}: #{name}" }
end
abort missing.join("\n") if missing.any?
puts "#{count} names"
