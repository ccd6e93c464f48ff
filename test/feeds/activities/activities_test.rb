# frozen_string_literal: true

require "json"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/activities"

class ActivitiesTest < Minitest::Test
  include Bavard::Feeds::Activities

  ANN = {"type" => "Person", "preferredUsername" => "ann", "name" => "Ann", "icon" => {"type" => "Image", "url" => "https://x.example/a.png"}}.freeze
  NOW_MS = 1_795_499_520_000

  def read(activity) = Reading.read(activity.is_a?(String) ? activity : JSON.generate(activity), 1, NOW_MS, fallback_id: "sig:1")

  def note(**more)
    {"type" => "Create", "actor" => ANN, "object" => {"type" => "Note", "id" => "n1", "content" => "hello"}.merge(more.transform_keys(&:to_s))}
  end

  def test_a_note_is_a_line
    intake = read(note)
    assert_equal [:line, "n1", "ann", "Ann", "hello", "https://x.example/a.png"],
      [intake.kind, intake.platform_id, *intake.body.to_a.values_at(0, 1, 4, 11)]
  end

  def test_content_is_html_unless_it_says_otherwise_and_words_are_what_is_left
    assert_equal "1 < 2 & so on", read(note(content: "<p>1 &lt; 2 <script>&amp;</script> so on</p>")).body.text
    assert_equal "<b>1</b>", read(note(content: "<b>1</b>", mediaType: "text/plain")).body.text
  end

  def test_without_an_id_the_signature_stands_in_for_it
    assert_equal "sig:1", read(note(id: nil)).platform_id
  end

  def test_deletes_and_blocks
    assert_equal [:delete_line, "n1"], read("type" => "Delete", "actor" => ANN, "object" => "n1").to_a.values_at(0, 2)
    assert_equal [:delete_line, "n1"], read("type" => "Delete", "object" => {"type" => "Tombstone", "id" => "n1"}).to_a.values_at(0, 2)
    assert_equal [:clear_person, "ann"], read("type" => "Block", "object" => ANN).to_a.values_at(0, 5)
  end

  def test_events
    {{"type" => "Follow"} => :follow, {"type" => "Join"} => :subscription, {"type" => "Offer"} => :gift, {"type" => "Arrive", "bavard:number" => 41} => :visit,
     {"type" => "Offer", "bavard:amount" => {"minor" => 500, "currency" => "EUR"}} => :tip, {"type" => "Create", "bavard:event" => "own"} => :own}.each do |activity, what|
      intake = read(activity.merge("actor" => ANN, "id" => "e1"))
      assert_equal [:event, "e1", what], [intake.kind, intake.platform_id, intake.body.what]
    end
  end

  def test_what_is_missing_is_said
    {"[]" => "body", "{" => "body", "{}" => "type", '{"type":"Like"}' => "type", '{"type":"Create","object":{"type":"Note"}}' => "actor", '{"type":"Create"}' => "object",
     '{"type":"Delete"}' => "object", '{"type":"Create","bavard:event":"party","actor":"ann"}' => "bavard:event"}.each do |body, field|
      assert_equal field, assert_raises(Bavard::Error, body) { read(body) }.field
    end
  end

  def test_a_signature_fits_its_message_and_its_time_and_counts_once
    check = Signature.new
    at = (NOW_MS / 1000).to_s
    good = Signature.of("key", at, "body")
    assert_equal good, check.check("key", at, "sha256=#{good}", "body", NOW_MS)
    {["key", at, good, "body"] => "taken before", ["key", at, good, "other"] => "does not fit", ["other", at, good, "body"] => "does not fit",
     ["key", at, nil, "body"] => "does not fit", ["key", nil, good, "body"] => "no timestamp", ["key", "#{at} ", good, "body"] => "no timestamp"}.each do |given, words|
      assert_includes assert_raises(Bavard::Error) { check.check(*given, NOW_MS) }.message, words
    end
  end

  def test_an_old_message_and_one_from_the_future_are_refused
    [-301, 301].each do |off|
      at = ((NOW_MS / 1000) + off).to_s
      assert_includes assert_raises(Bavard::Error) { Signature.new.check("key", at, Signature.of("key", at, "x"), "x", NOW_MS) }.message, "300 s old"
    end
  end

  # RFC 4231, test case 2, with our way of joining timestamp and body undone.
  def test_the_signature_is_hmac_sha256
    assert_equal OpenSSL::HMAC.hexdigest("SHA256", "Jefe", "1.x"), Signature.of("Jefe", "1", "x")
  end
end
