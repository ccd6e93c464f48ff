# frozen_string_literal: true

require "minitest/autorun"

# What somebody gains by a promise that nothing keeps: every test that SECURITY.md names is there.
class PromisesTest < Minitest::Test
  ROOT = File.expand_path("../..", __dir__)
  NAMED = /`(?<class>[A-Z]\w+Test)(?:#(?<test>test_\w+))?`/

  # @return [Hash{String => String}] the file's text by the classes in it
  def tests
    Dir["#{ROOT}/test/**/*_test.rb"].each_with_object({}) do |file, found|
      text = File.read(file)
      text.scan(/^\s*class (\w+Test)\b/).flatten.each { |name| found[name] = text }
    end
  end

  def test_every_test_that_is_named_is_there
    known = tests
    named = File.read("#{ROOT}/SECURITY.md").scan(NAMED)
    assert_operator named.size, :>=, 40
    missing = named.reject { |name, test| known.key?(name) && (test.nil? || known[name].match?(/def #{test}$/)) }
    assert_empty missing
  end
end
