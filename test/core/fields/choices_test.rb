# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/cue"
require_relative "../../../lib/bavard/core/gate/rules"
require_relative "../../../lib/bavard/core/pieces/pieces"

# What forms offer to be chosen is taken, each of it: pages are proved by the first and the last of them.
class ChoicesTest < Minitest::Test
  Core = Bavard::Core

  def offered
    kinds = Core::Pieces::ALL.to_h { |kind| [kind::KEY, kind.properties] }
    rules = Core::Gate::Rules::KINDS.to_h { |key, kind| [key, kind.properties] }
    {"cue" => Core::Cues::Cue::PROPERTIES, **kinds, **rules}.flat_map do |owner, properties|
      properties.values.flat_map { |property| Array(property.field[:choices]).map { |choice| [owner, property, choice] } }
    end
  end

  def test_every_choice_that_is_offered_is_taken
    all = offered
    assert_operator all.size, :>, 500
    all.each do |owner, property, choice|
      given = {choice:, order: property.field[:choices]}.fetch(property.field[:kind], [choice])
      assert_equal given, property.read(given), "#{owner}: #{property.name}"
    end
  end
end
