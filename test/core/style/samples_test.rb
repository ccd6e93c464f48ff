# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/settings"
require_relative "../../../lib/bavard/core/style/samples"

# What empty pieces show while somebody edits them.
class SamplesTest < Minitest::Test
  include Bavard::Core

  Samples = Bavard::Core::Style::Samples

  def of(kind, values = {}, **more) = Samples.of(Pieces.kind(kind).build("#{kind}1", values), **more)

  def test_whatever_stands_empty_at_first_has_one_and_what_shows_its_own_has_none
    Samples::EMPTY_AT_FIRST.each { |kind| refute_nil of(kind), kind }
    assert_equal %w[chat picture space text video], Pieces::KINDS.keys.select { |kind| of(kind).nil? }.sort
  end

  def test_an_alert_is_what_the_sheet_would_play_there
    cues = Cues::Settings.default["cues"]
    tip = cues.find { |cue| cue["kind"] == "tip" }.merge("words" => "{name} left {amount}[ for {months}]", "picture" => "0" * 32, "picture_place" => "left")
    how, card = of("alerts", {"kinds" => ["tip"]}, cues: cues.reject { |cue| cue["kind"] == "tip" } + [tip])
    assert_equal ["alert", "tip", "left", "0" * 32], [how, *card.values_at(:k, :p, :f)]
    assert_equal "kestrel_ann left 5.00 EUR", card[:w].map(&:last).join
    assert_equal "follow", of("alerts", {"kinds" => ["follow"]}, cues: []).last[:k]
  end

  def test_of_those_who_sit_there_one_talks
    assert_equal [nil, 1, nil], of("voices", {"at_most" => 3}).last[:p].map { |seat| seat[:t] }
    assert_equal [[nil, "silent"], [1, "talking"], [nil, "silent"]], of("portraits").last[:p].map { |figure| figure.values_at(:t, :w) }
  end

  # Made of nothing that a cue asks for, and still what it says.
  def test_a_cue_for_certain_people_and_amounts_is_shown_with_them
    cue = Cues::Cue.build("own", "kind" => "tip", "people" => "bittern.by.bittern", "amount_from" => "50", "words" => "{name}: {amount}")
    assert_equal "bittern.by.bittern: 50.00 EUR", of("alerts", cues: [cue]).last[:w].map(&:last).join
  end

  def test_goals_are_on_their_way_whichever_way_that_goes
    ways = [{"to" => 60}, {"from" => 60, "to" => 0, "falls" => true}, {"from" => 10, "to" => 20, "since" => "ever"}, {"to" => 90, "already" => 30}]
    ways.each do |values|
      how, card = of("goal", values)
      assert_equal ["counted", false], [how, card[:reached]]
      assert_in_delta 0.62, card[:share], 0.05
    end
    assert_equal "running", of("challenge").last[:state]
  end
end
