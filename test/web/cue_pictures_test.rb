# frozen_string_literal: true

require_relative "../support/web_test"

# What the cue sheet is told of how each cue looks.
class CuePicturesTest < WebTest
  def setup
    super
    sign_up
  end

  def header = {"HTTP_X_CSRF_TOKEN" => csrf, "HTTP_X_REQUESTED_WITH" => "XMLHttpRequest"}
  def csrf = @csrf ||= token_on("/feeds")
  def json(path, values) = post(path, JSON.generate(values), header.merge("CONTENT_TYPE" => "application/json"))

  def sheet
    get "/dress/cues/sheet"
    assert_equal 200, last_response.status
    JSON.parse(last_response.body)
  end

  def test_without_a_stage_cues_are_shown_where_a_piece_would_be_added
    place = sheet["places"].first
    assert_equal [1, nil, "dawn"], [sheet["places"].size, place["stage"], place["backdrop"]]
  end

  def test_each_cue_is_shown_on_the_piece_that_plays_it_with_words_that_fit_and_its_score
    post("/stage/", {"layout" => "nothing"}, header)
    stage = db[:stages].first[:id]
    json("/stage/#{stage}/edits", {"do" => "place", "kind" => "alerts", "values" => {"kinds" => ["tip"], "text_face" => "Anton"}})
    json("/dress/cues/cues/cue_tip", {"words" => "{name}: {amount}", "message_begins_s" => 2})
    told = sheet
    place = told["places"].first
    assert_equal [["tip"], stage, [], [0, 0, 1920, 1080]], [*place.values_at("kinds", "stage"), place["style"]["kinds"], place["box"]]
    assert_includes place["style"]["css"]["--text-face"], "Anton"
    json("/stage/#{stage}/edits", {"do" => "place", "kind" => "alerts"})
    told = sheet
    assert_equal [0, 1], told["plays"].values_at("cue_tip", "cue_follow"), "the one for tips, and the one for all"
    card = told["cards"]["cue_tip"]
    assert_equal ["kestrel_ann: 5.00 EUR", {"message" => [2000, 6000]}], [card["w"].map(&:last).join, card["t"]]
    assert_equal [["words", 0, 6000], ["message", 2000, 6000]], told["scores"]["cue_tip"].first(2)
    assert_equal told["cues"].map { |cue| cue["id"] }.sort, told["cards"].keys.sort
  end

  def test_another_is_shown_by_chance_and_fits_the_cue
    json("/dress/cues/cues/cue_tip", {"amount_from" => 50, "amount_to" => 80, "people" => "mudlark7\nbirdbath", "words" => "{name}: {amount}"})
    seen = Array.new(12) do
      get "/dress/cues/cues/cue_tip/another"
      JSON.parse(last_response.body)["card"]["w"].map(&:last).join
    end
    assert(seen.all? { |words| words.match?(/\A(mudlark7|birdbath): (5\d|6\d|7\d|80)\.00 EUR\z/) }, seen.inspect)
    assert_operator seen.uniq.size, :>, 1
    get "/dress/cues/cues/nothing/another"
    assert_equal 404, last_response.status
  end

  def test_when_a_cue_plays_how_often_it_did_and_what_would_in_its_place
    about = lambda do |id|
      get "/dress/cues/cues/#{id}/about"
      JSON.parse(last_response.body)
    end
    assert_equal ["tips", "whatever it is", 0, 0, nil], about["cue_tip"].values_at("kind", "narrowed", "times", "of", "instead")
    post("/dress/cues/cues", {"kind" => "tip"}, header)
    large = sheet["cues"].last["id"]
    json("/dress/cues/cues/#{large}", {"amount_from" => 50, "name" => "Large"})
    assert_equal ["amount from 50", "Tips"], about[large].values_at("narrowed", "instead")
    get "/dress/cues/cues/nothing/about"
    assert_equal 404, last_response.status
  end
end
