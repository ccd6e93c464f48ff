# frozen_string_literal: true

require "openssl"
require_relative "../support/web_test"

# What somebody gains who knows one address that was handed out: nothing but what it is for.
class HandedOutAddressesTest < WebTest
  def setup
    super
    sign_up
    post("/stage/", {"layout" => "nothing"}, header)
    @stage = db[:stages].first
    @token = stores.stages.find(@stage[:id]).token
    post(here("edits"), JSON.generate("do" => "add", "kind" => "now_line", "values" => {"source" => "address"}), header.merge("CONTENT_TYPE" => "application/json"))
  end

  def header = {"HTTP_X_CSRF_TOKEN" => @csrf ||= token_on("/feeds"), "HTTP_X_REQUESTED_WITH" => "XMLHttpRequest"}
  def here(path) = "/stage/#{@stage[:id]}/#{path}"
  def address(piece = "now_line1") = get(here("pieces/#{piece}/address")).then { JSON.parse(last_response.body)["address"][%r{/now/.*}] }

  # As a stranger, without any cookie.
  def sent(path)
    Rack::MockRequest.new(app).post(path, input: "mine", "CONTENT_TYPE" => "text/plain").status
  end

  def test_words_on_the_picture_by_whoever_has_the_air_link
    keys = ["now now_line1", "now_line1", "#{@stage[:id]} now_line1", "#{@stage[:id]} now_line1 #{@token}"].map do |text|
      OpenSSL::HMAC.hexdigest("SHA256", @token, text)[0, 32]
    end
    assert_equal [404], [*keys, @token[0, 32], "0" * 32].map { |key| sent("/now/#{@stage[:id]}/now_line1/#{key}") }.uniq
    assert_equal 202, sent(address)
  end

  def test_another_piece_or_stage_by_whoever_has_one_address
    post(here("edits"), JSON.generate("do" => "add", "kind" => "now_line", "values" => {"source" => "address"}), header.merge("CONTENT_TYPE" => "application/json"))
    key = address[/\h{32}\z/]
    assert_equal [404, 404], ["/now/#{@stage[:id]}/now_line2/#{key}", "/now/#{@stage[:id] + 1}/now_line1/#{key}"].map { |path| sent(path) }
    refute_equal key, address("now_line2")[/\h{32}\z/]
  end

  def test_what_was_handed_out_before_a_new_link
    before = address
    post("/links/#{@stage[:id]}/new-link", {}, header)
    assert_equal [404, 202], [sent(before), sent(address)]
  end

  def test_a_screen_by_whoever_may_set_the_words
    key = address[/\h{32}\z/]
    get "/air/#{key}"
    refute_includes last_response.body, @token
    assert_includes [404, 200], last_response.status
    refute_includes last_response.body, "/air/#{key}/live"
  end
end
