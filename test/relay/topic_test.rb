# frozen_string_literal: true

require "json"
require_relative "../support/plain"
require_relative "../../lib/bavard/relay/topic"

class TopicTest < Minitest::Test
  def setup
    @topic = Bavard::Relay::Topic.new("air:1", life: "life")
  end

  def publish(count)
    count.times { |number| @topic.frame({number:}, -> { {all: number} }) }
  end

  # When it was sent is told with each.
  def told(text) = JSON.parse(text).tap { |message| assert_kind_of Integer, message.delete("t") }
  def catch_up(last) = told(@topic.catch_up(last))

  def test_frames_are_numbered_with_the_life_of_their_topic
    assert_equal({"at" => "life:1", "x" => 1}, told(@topic.frame({x: 1}, -> { {} })))
  end

  def test_who_was_away_gets_what_was_missed_in_one_message
    publish(5)
    message = catch_up("life:3")
    assert_equal ["life:5", [3, 4]], [message["at"], message["missed"].map { |frame| frame["number"] }]
  end

  def test_who_missed_nothing_gets_nothing_again
    publish(5)
    assert_empty catch_up("life:5")["missed"]
  end

  def test_a_stranger_gets_a_whole_picture
    publish(2)
    [nil, "", "life", "other:1", "life:99", "life:-1", "life:x", "life:1:2:3", ":", "life:#{"9" * 40}"].each do |last|
      assert_equal({"at" => "life:2", "whole" => true, "all" => 1}, catch_up(last), last.inspect)
    end
  end

  def test_one_of_the_same_name_has_a_life_of_its_own
    before, now = Array.new(2) { Bavard::Relay::Topic.new("air:1") }
    last = told(before.frame({}, -> { {} }))["at"]
    2.times { now.frame({}, -> { {} }) }
    assert told(now.catch_up(last))["whole"]
  end

  def test_who_was_away_too_long_gets_a_whole_picture
    publish(Bavard::Relay::Topic::KEPT_FRAMES + 10)
    assert catch_up("life:5")["whole"]
    refute catch_up("life:10")["whole"]
  end

  def test_before_anything_happened_the_picture_is_empty
    assert_equal({"at" => "life:0", "whole" => true}, catch_up(nil))
  end
end
