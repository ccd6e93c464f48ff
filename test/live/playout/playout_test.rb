# frozen_string_literal: true

require "json"
require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/moderation/line_state"
require_relative "../../../lib/bavard/core/pieces/kinds/chat"
require_relative "../../../lib/bavard/live/playout/playout"
require_relative "../../../lib/bavard/relay/topic"

class PlayoutTest < Minitest::Test
  include Lines

  LineState = Bavard::Core::Moderation::LineState

  # Keeps the frames.
  class Kept < Array
    def deliver(_topic, frame) = self << JSON.parse(frame)
  end

  def setup
    @frames = Kept.new
    @topic = Bavard::Relay::Topic.new("air:1")
  end

  def playout(**values)
    pieces = [Bavard::Core::Pieces::ChatPiece.build("chat1", {"stay_ms" => 10_000}.merge(values.transform_keys(&:to_s)))]
    @document = Bavard::Core::Stage::Document.empty.merge("pieces" => pieces)
    shared = Bavard::Live::Playout::Shared.new(->(_line) { %w[circle #5fb8d6] }, nil, "Odalys Fenn")
    Bavard::Live::Playout.new(@topic, @frames, shared, document: @document, revision: 1).tap { |one| one.flush(100_000) }
  end

  def test_no_more_than_thirty_frames_a_second
    shown = playout
    from = @frames.size
    1000.times do |ms|
      shown.add(line(ms + 1, at_ms: 100_000))
      shown.flush(100_001 + ms)
    end
    assert_operator @frames.size - from, :<=, 30
  end

  def test_a_frame_holds_all_that_changed
    shown = playout(at_most: 2)
    3.times { |number| shown.add(line(number + 1, at_ms: 100_000)) }
    shown.flush(100_100)
    assert_equal [2, 3], @frames.last.dig("in", "chat1").map { |card| card["i"] }
  end

  def timed(**values)
    shared = Bavard::Live::Playout::Shared.new(->(_line) { %w[circle #5fb8d6] }, nil, "Odalys Fenn")
    pieces = [Bavard::Core::Pieces::ChatPiece.build("chat1", {"stay_ms" => 10_000}.merge(values.transform_keys(&:to_s)))]
    shown = Bavard::Live::Playout.new(@topic, @frames, shared, document: Bavard::Core::Stage::Document.empty.merge("pieces" => pieces), timed: true)
    shown.add(line(1, at_ms: 100_000))
    shown.flush(103_000)
    @frames.last.dig("in", "chat1", 0, "z")
  end

  def test_a_page_is_told_how_long_a_line_still_stands_where_it_leaves_by_its_time_alone
    assert_equal 7000, timed
    assert_nil timed(stay_ms: "for good")
    assert_nil timed(keep_last: 1)
    timed
    assert_equal 7000, JSON.parse(@topic.catch_up(nil)).dig("in", "chat1", 0, "z")
  end

  # In a draft time can be held.
  def test_a_page_of_the_draft_is_not
    shown = playout
    shown.add(line(1, at_ms: 100_000))
    shown.flush(103_000)
    refute @frames.last.dig("in", "chat1", 0).key?("z")
  end

  def test_nothing_new_sends_nothing
    shown = playout
    before = @frames.size
    shown.flush(200_000)
    assert_equal before, @frames.size
    assert_nil shown.due_ms
  end

  def test_other_colours_reach_the_names_that_already_stand
    shown = playout
    shown.add(line(1, at_ms: 100_000, colour: "#22229a"))
    shown.flush(100_100)
    dark = @frames.last.dig("in", "chat1", 0, "c")
    shown.play(@document.merge("pieces" => [@document["pieces"][0].merge("plate_colour" => "#ffffff")]), 2)
    shown.flush(100_200)
    assert_equal [[1, "#22229a"]], @frames.last.dig("colours", "chat1")
    refute_equal "#22229a", dark
  end

  def test_a_piece_that_is_placed_later_shows_what_already_stands
    shown = playout
    shown.add(line(1, at_ms: 100_000))
    shown.flush(100_100)
    second = Bavard::Core::Pieces::ChatPiece.build("chat2")
    shown.play(@document.merge("pieces" => @document["pieces"] + [second]), 2)
    shown.flush(100_200)
    assert_equal [1], @frames.last.dig("in", "chat2").map { |card| card["i"] }
  end

  def test_a_deleted_line_does_not_come_back_with_a_new_piece
    shown = playout
    shown.add(line(1, at_ms: 100_000).tap { |one| one.state = LineState.new(:deleted) })
    shown.flush(100_100)
    shown.play(@document.merge("pieces" => @document["pieces"] + [Bavard::Core::Pieces::ChatPiece.build("chat2")]), 2)
    shown.flush(100_200)
    assert_nil @frames.last.dig("in", "chat2")
  end

  def test_the_whole_picture_is_the_sum_of_its_frames
    shown = playout(at_most: 3)
    6.times do |number|
      one = line(number + 1, at_ms: 100_000)
      one.state = LineState.new(:aired)
      shown.add(one)
      one.state.move(:pull) if one.id == 5
      shown.flush(100_100 + (number * 50))
    end
    whole = JSON.parse(@topic.catch_up(nil))
    assert_equal [4, 6], whole.dig("in", "chat1").map { |card| card["i"] }
    assert whole["whole"]
  end

  def test_viewers_words_go_out_as_they_came
    shown = playout
    shown.add(line(1, "<b>&amp;\u2028</script>", at_ms: 100_000))
    shown.flush(100_100)
    assert_equal [["text", "<b>&amp;</script>"]], @frames.last.dig("in", "chat1", 0, "f")
  end
end
