# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/pieces/own_outfit"
require_relative "../../../lib/bavard/core/stage/edit"

# How a whole stage looks, kept by its host.
class OwnOutfitTest < Minitest::Test
  include Bavard::Core

  OwnOutfit = Bavard::Core::Pieces::OwnOutfit

  def stage(**outfit)
    placed = %w[chat goal alerts goal space].reduce(Stage::Document.empty) { |document, kind| Stage::Edit.apply(document, {"do" => "place", "kind" => kind}).document }
    outfit.any? ? Stage::Edit.apply(placed, {"do" => "outfit", "outfit" => outfit[:outfit]}).document : placed
  end

  def looks(document) = document["pieces"].reject { |piece| piece["kind"] == "space" }.map { |piece| Pieces::LookDocument.of(piece, "")["set"].except(*Pieces::LookDocument::KEPT) }

  def test_another_stage_looks_like_it_and_keeps_its_places_sizes_and_words
    model = stage(outfit: "field_notes")
    kept = OwnOutfit.read(JSON.parse(JSON.generate(OwnOutfit.of(model, "Ours"))))
    assert_equal %w[chat goal alerts], kept["kinds"].keys
    plain = Stage::Edit.apply(stage, {"do" => "set", "piece" => "goal1", "values" => {"text_size_px" => 61, "title" => "Mine", "x" => 7}}).document
    done = Stage::Edit.apply(plain, {"do" => "dress", "set" => kept})
    assert_equal looks(model), looks(done.document)
    assert_equal model["house"], done.document["house"]
    goal = done.document["pieces"].find { |piece| piece["id"] == "goal1" }
    assert_equal [61, "Mine", 7], goal.values_at("text_size_px", "title", "x")
    assert_equal plain, Stage::Edit.apply(done.document, done.undo).document
  end

  def test_what_is_no_such_document_is_refused_by_name
    [nil, {}, {"format" => OwnOutfit::FORMAT}, {"format" => OwnOutfit::FORMAT, "kinds" => {"nest" => {}}},
      {"format" => OwnOutfit::FORMAT, "kinds" => {"goal" => {"title" => "x"}}}, {"format" => OwnOutfit::FORMAT, "kinds" => {"goal" => []}},
      {"format" => OwnOutfit::FORMAT, "kinds" => {}, "house" => {"colours" => 7}}].each do |given|
      assert_raises(Bavard::Error, given.inspect) { OwnOutfit.read(given) }
    end
  end
end
