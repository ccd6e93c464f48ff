# frozen_string_literal: true

require_relative "../support/lines"
require_relative "../support/web_test"

# Whatever there is in a show is found by the words that people use for it, as far as their role goes.
class FindTest < WebTest
  def setup
    super
    sign_up
    send_form("/lead/stage")
  end

  def show = @shows.running.first
  def found(words, **more) = JSON.parse(get("/find?#{Rack::Utils.build_query({"q" => words}.merge(more.transform_keys(&:to_s)))}").body)["found"]
  def first(words) = found(words).first.values_at("kind", "label", "at")

  def test_stations_rooms_settings_cues_and_rules
    stage = db[:stages].get(:id)
    assert_equal ["station", "Air", "/links"], first("air")
    assert_equal ["room", "Cue sheet", "/dress/cues/"], first("notifications")
    assert_equal ["setting", "/stage/#{stage}#chat1.side"], found("behind camera").first.values_at("kind", "at")
    assert_includes found("chat").map { |one| one["at"] }, "/stage/#{stage}#chat1"
    assert_includes found("left out").map { |one| one["kind"] }, "rule"
    cue = show.ask { |one| one.cues.document["cues"].first }
    assert_includes found(cue["name"]).map { |one| one["at"] }, "/dress/cues/##{cue["id"]}"
  end

  def test_who_wrote_lately_and_what_was_written
    line = ::Lines.line(clock.call * 1000, "hello", login: "mudlark7", name: "Mud <i>Lark</i>", at_ms: clock.call)
    kept = Struct.new(:line).new(line)
    show.ask { |one| one.lines.define_singleton_method(:to_a) { [kept] } }
    assert_equal ["person", "Mud <i>Lark</i>", "/log/?person=mudlark7"], first("mudlark")
    assert_equal ["line", "/log/?text=a+b%26c"], found("a b&c").last.values_at("kind", "at")
    assert_empty found("   ")
  end

  def test_settings_are_those_of_the_stage_that_is_open
    second = send_form("/stage/", "layout" => "side")["stage"]
    assert_includes found("text size", stage: second).map { |one| one["at"] }, "/stage/#{second}#chat1.text_size_px"
    refute_includes found("text size").map { |one| one["at"] }, "/stage/#{second}#chat1.text_size_px"
    assert_includes found("text size", stage: "99999999999999999999").map { |one| one["at"] }, "/stage/#{db[:stages].min(:id)}#chat1.text_size_px"
  end

  def test_each_address_that_is_found_is_there
    all = %w[air chat cue voices people log report size side].flat_map { |words| found(words) }.map { |one| one["at"][/[^#]*/] }.uniq
    assert_operator all.size, :>, 6
    assert_empty(all.reject { |path| get(path).status == 200 || last_response.redirect? })
  end

  # What people call by its name is what they find first.
  def test_parts_of_stations
    parts = Bavard::Web::FindApp::Parts::ALL
    parts.each { |part| assert_equal ["part", part.label, part.at], first(part.label) }
    assert_equal ["part", "Hold before air", "/gate#hold-row"], first("hold")
    assert_equal ["part", "People left out", "/gate#left-out-title"], first("ban somebody")
    parts.map { |part| part.at.split("#") }.each do |path, anchor|
      get path
      assert_includes [200, 302], last_response.status, path
      assert_includes last_response.body, %(id="#{anchor}") if anchor
    end
  end

  def test_nobody_is_led_where_they_may_not_go
    visitor = Struct.new(:rights) { def may?(right) = rights.include?(right) }
    labels = ->(*rights) { Bavard::Web::FindApp::Parts.of(visitor.new(rights)).map(&:label) }
    assert_equal ["Where you are signed in", "Second factor", "Change the password"], labels.call(:read)
    assert_includes labels.call(:read, :act), "Brake"
    refute_includes labels.call(:read, :act, :direct), "Invite somebody"
  end

  def test_hostile_words_are_only_words
    ["\u0000", "%", "' OR 1=1 --", "(" * 500, "a" * 5000].each do |words|
      assert_kind_of Array, found(words)
      assert_equal 200, last_response.status
    end
    get "/find?q[]=x"
    assert_equal 200, last_response.status
  end
end
