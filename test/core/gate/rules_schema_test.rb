# frozen_string_literal: true

require "json"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/rule_set"

class RulesSchemaTest < Minitest::Test
  def test_the_published_schema_is_what_the_rules_say
    published = JSON.parse(File.read(File.expand_path("../../../docs/formats/rules.schema.json", __dir__)))
    assert_equal JSON.parse(JSON.generate(Bavard::Core::Gate::RuleSet.schema)), published, "bin/formats writes it anew"
  end
end
