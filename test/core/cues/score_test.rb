# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/score"

# When each part of a cue begins and ends.
class ScoreTest < Minitest::Test
  Cue = Bavard::Core::Cues::Cue
  Score = Bavard::Core::Cues::Score

  def cue(given = {}) = Cue.build("c1", {"kind" => "tip", "length_s" => 6}.merge(given))
  def rows(given = {}, **more) = Score.rows(cue(given), **more).map(&:to_a)

  def test_words_and_message_stand_as_long_as_the_cue_where_nothing_else_is_set
    assert_equal [["words", 0, 6000], ["message", 0, 6000]], rows
    assert_empty Score.times(cue)
    assert_equal [["words", 0, 6000]], rows({"message" => false})
  end

  def test_every_part_has_its_row_and_what_is_read_aloud_waits_for_the_sound
    given = {"picture" => "0" * 32, "picture_ends_s" => 4, "words_begins_s" => 0.5, "sound" => "1" * 32, "sound_begins_s" => 1, "aloud" => true,
             "flurry_count" => 12, "flurry_begins_s" => 2, "adds" => 5, "adds_to" => "Nest boxes"}
    wanted = [["picture", 0, 4000], ["words", 500, 6000], ["message", 0, 6000], ["sound", 1000, 2800], ["aloud", 2800, nil],
      ["flurry", 2000, 2000 + Score::FLOWN_MS], ["adds", 0, Score::LEAST_MS]]
    assert_equal wanted, rows(given, sound_ms: 1800)
    assert_equal({"picture" => [0, 4000], "words" => [500, 6000]}, Score.times(cue(given)))
  end

  def test_a_sound_of_unknown_length_has_no_end
    assert_equal [["sound", 0, nil], ["aloud", 0, nil]], rows({"sound" => "1" * 32, "aloud" => true}).last(2)
  end

  # Whatever is set, every part is seen within the cue.
  def test_no_part_is_outside_of_its_cue
    random = Random.new(20_261_129)
    500.times do
      given = {"length_s" => random.rand(1.0..120.0).round(1), "picture" => "0" * 32}
      %w[picture words message].each { |part| given.merge!("#{part}_begins_s" => random.rand(0..120), "#{part}_ends_s" => random.rand(0..120)) }
      length = (given["length_s"] * 1000).round
      Score.rows(cue(given)).each do |row|
        assert_operator row.begins_ms, :>=, 0
        assert_operator row.ends_ms - row.begins_ms, :>=, Score::LEAST_MS
        assert_operator row.ends_ms, :<=, length, given.inspect
      end
    end
  end

  def test_how_it_moves_is_told_only_where_that_is_not_as_the_piece_has_it
    assert_empty Score.moved(cue)
    assert_equal [{by: "letters"}, {wave: 1}], [{"words_in" => "letters"}, {"words_wave" => true}].map { |given| Score.moved(cue(given))[:u] }
    moved = Score.moved(cue("motion_in" => "rise", "motion_out" => "rise", "held" => "sway"))
    assert_equal [Bavard::Core::Look::Motion.keyframes("rise"), "sway"], moved.values_at(:in, :held)
    assert_equal moved[:in].reverse.map { |frame| frame["opacity"] }, moved[:out].map { |frame| frame["opacity"] }
  end
end
