# frozen_string_literal: true

require "json"
require_relative "../support/plain"
require_relative "../../lib/bavard/relay/topic"

class TopicTest < Minitest::Test
  def setup
    @topic = Bavard::Relay::Topic.new("air:1", "boot")
  end

  def publish(count)
    count.times { |number| @topic.frame({number:}, -> { {all: number} }) }
  end

  # When it was sent is told with each.
  def told(text) = JSON.parse(text).tap { |message| assert_kind_of Integer, message.delete("t") }
  def catch_up(last) = told(@topic.catch_up(last))

  def test_frames_are_numbered_with_the_boot
    assert_equal({"at" => "boot:1", "x" => 1}, told(@topic.frame({x: 1}, -> { {} })))
  end

  def test_who_was_away_gets_what_was_missed_in_one_message
    publish(5)
    message = catch_up("boot:3")
    assert_equal ["boot:5", [3, 4]], [message["at"], message["missed"].map { |frame| frame["number"] }]
  end

  def test_who_missed_nothing_gets_nothing_again
    publish(5)
    assert_empty catch_up("boot:5")["missed"]
  end

  def test_a_stranger_gets_a_whole_picture
    publish(2)
    [nil, "", "boot", "other:1", "boot:99", "boot:-1", "boot:x", "boot:1:2:3", ":", "boot:#{"9" * 40}"].each do |last|
      assert_equal({"at" => "boot:2", "whole" => true, "all" => 1}, catch_up(last), last.inspect)
    end
  end

  def test_who_was_away_too_long_gets_a_whole_picture
    publish(Bavard::Relay::Topic::KEPT_FRAMES + 10)
    assert catch_up("boot:5")["whole"]
    refute catch_up("boot:10")["whole"]
  end

  def test_before_anything_happened_the_picture_is_empty
    assert_equal({"at" => "boot:0", "whole" => true}, catch_up(nil))
  end
end
