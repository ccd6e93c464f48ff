# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/core/cues/cue"
require_relative "../../lib/bavard/web/stations/stage/stage_sheet"

# Whatever an outfit or a description can set, somebody can set by hand.
class StageSheetTest < Minitest::Test
  Core = Bavard::Core
  # Set for all kinds alike, beside their parts; by the order of parts in the specimen; by the switch of two forms.
  ELSEWHERE = %w[x y width height called side opacity keep_proportion locked hidden group parts form bright].freeze

  def test_every_property_of_every_kind_stands_in_one_of_its_parts
    missing = Bavard::Web::StageSheet.kinds.to_h do |key, told|
      there = told[:parts].flat_map { |part| part[:groups].flat_map { |group| group[:names] } }
      [key, Core::Pieces::KINDS[key].properties.keys - there - ELSEWHERE]
    end
    assert_empty(missing.reject { |_, names| names.empty? })
  end

  def test_every_property_of_a_cue_stands_in_its_panel
    panel = File.read(File.expand_path("../../assets/js/cues/edit.js", __dir__))
    assert_empty(Core::Cues::Cue::PROPERTIES.keys.reject { |name| panel.include?(%("#{name}")) } - %w[picture])
  end
end
