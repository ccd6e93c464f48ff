# frozen_string_literal: true

require "json"
require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/dress/emote_index"
require_relative "../../../lib/bavard/core/moderation/line_state"
require_relative "../../../lib/bavard/live/playout/playout"
require_relative "../../../lib/bavard/relay/topic"

# Emotes that fly, from a line to the frame a page gets.
class FlownPiecesTest < Minitest::Test
  Dress = Bavard::Core::Dress
  # As a show's Wardrobe, as far as it is asked here.
  Wardrobe = Struct.new(:emotes) do
    def platform_picture(_feed_id, address) = "picture of #{address}"
    def shelf_of(*) = 3
    def badges(_line) = []
  end
  # Keeps the frames.
  class Kept < Array
    def deliver(_topic, frame) = self << JSON.parse(frame)
  end

  def setup
    wren = Dress::Emote.new(1, ":wren:", "pwren", false, false, true, 1.5)
    @index = Dress::EmoteIndex.new([Dress::Shelf.new(3, "Birds", true, [], [wren], nil)])
    @frames = Kept.new
    @now = 100_000
    @shared = Bavard::Live::Playout::Shared.new(->(_line) { %w[circle #5fb8d6] }, -> { Wardrobe.new(@index) }, "Odalys Fenn")
    @playout = Bavard::Live::Playout.new(Bavard::Relay::Topic.new("air:1"), @frames, @shared, document:, revision: 1)
    flush
  end

  def document(*more)
    kinds = Bavard::Core::Pieces
    pieces = [["chat", {}], ["flurry", {"width" => 1920, "height" => 1080}], *more].map { |kind, values| kinds.kind(kind).build("#{kind}1", values) }
    Bavard::Core::Stage::Document.empty.merge("pieces" => pieces)
  end

  # @return [Hash] the frame there is now, if any
  def flush
    @frames.clear
    @playout.flush(@now += 50)
    @frames.last || {}
  end

  def say(id, text, at_ms: @now, emotes: nil)
    @said = Lines.line(id, text, at_ms:, emotes:).dress(@index)
    @said.state = Bavard::Core::Moderation::LineState.new(:aired)
    @playout.add(@said)
    flush
  end

  def test_emotes_of_a_line_are_told_with_their_way
    card = say(1, ":wren: hello")["fly"]["flurry1"].first
    assert_equal [[":wren:", "pwren", 1.5, 1], 1], card.values_at("e", "l")
    assert_operator card["p"].size, :>, 5
    refute say(2, "no emote")["fly"]
  end

  def test_what_is_pulled_is_taken_out_of_the_air
    say(1, ":wren:")
    @said.state.move(:pull)
    @playout.moved(@said)
    assert_equal [1], flush["ground"]
    @playout.moved(@said)
    refute flush["ground"]
  end

  def test_all_of_it_ends_when_chat_is_off_the_picture_and_when_it_is_cleared
    say(1, ":wren:")
    @playout.veil(true)
    assert_equal [1], flush["ground"]
    refute say(2, ":wren:")["fly"]
    @playout.veil(false)
    flush
    say(3, ":wren:")
    @playout.clear
    assert_equal [3], flush["ground"]
  end

  def test_what_is_told_again_does_not_fly
    flown = Bavard::Live::FlownPieces.new(@shared.wardrobe)
    flown.play(document, {})
    flown.add(Lines.line(1, ":wren:", at_ms: 1000).dress(@index)) { 60_000 }
    refute_predicate flown, :changed?
  end

  def test_another_space_or_setting_is_heeded_from_the_next_one_on
    space = ["space", {"x" => 0, "y" => 0, "width" => 1900, "height" => 1000}]
    @playout.play(document(space), 2)
    flush
    ys = say(1, ":wren:")["fly"]["flurry1"].first["p"].map { |point| point[2] }
    assert_operator ys.min, :>, 1000
  end

  def test_what_a_cue_asks_for_flies
    wish = Bavard::Core::Flurry::Flurry::Wish.new(emotes: [[":wren:", "pwren", 1, 0]], many: 7, way: "burst", from: [0.5, 0.5])
    @playout.fly(wish, @now)
    flown = flush["fly"]["flurry1"]
    assert_equal [7, [nil]], [flown.size, flown.map { |card| card["l"] }.uniq]
  end
end
