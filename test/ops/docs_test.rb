# frozen_string_literal: true

require "yaml"
require_relative "../support/plain"
require_relative "../support/test_database"
require_relative "../../lib/bavard/commands/admin"

# What docs/operating.md and docs/privacy.md speak of is there.
class OperatingDocsTest < Minitest::Test
  DOCS = File.expand_path("../../docs", __dir__)
  OPERATING = File.read("#{DOCS}/operating.md")
  PRIVACY = File.read("#{DOCS}/privacy.md")

  def test_each_command_is_one
    named = OPERATING.scan(%r{bin/admin ([a-z-]+)}).flatten.uniq
    assert_operator named.size, :>, 10
    assert_empty named.reject { |word| Bavard::Commands::Admin::USAGE.match?(%r{(?:bin/admin|;) #{word}\b}) }
    OPERATING.scan(%r{\bbin/[a-z]+}).uniq.each { |path| assert File.executable?(File.expand_path("../#{path}", DOCS)), path }
  end

  def test_each_setting_is_in_the_readme
    readme = File.read("#{DOCS}/../README.md")
    assert_empty OPERATING.scan(/\bBAVARD_[A-Z_]+/).uniq.reject { |name| readme.include?("`#{name}") }
  end

  def test_each_file_is_there
    named = OPERATING.scan(/\]\(([^)]+)\)/).flatten + OPERATING.scan(%r{`(ops/[^`]+)`}).flatten.map { |path| "../#{path}" }
    assert_operator named.size, :>, 6
    assert_empty named.reject { |path| File.exist?(File.expand_path(path, DOCS)) }
  end

  def test_each_table_is_one
    named = PRIVACY.scan(/\| `([a-z_]+)`/).flatten
    assert_operator named.size, :>, 8
    assert_empty named.map(&:to_sym) - TestDatabase.db.tables
  end

  # How long things are kept is what the program keeps them for.
  def test_for_how_long
    days = ->(ms) { ms / 86_400_000 }
    assert_includes PRIVACY, "#{days[Bavard::Store::OperatorDeeds::KEPT_MS]} days"
    assert_includes PRIVACY, "(#{TestDatabase.db.schema(:shows).to_h[:keep_days][:ruby_default]} days"
  end
end
