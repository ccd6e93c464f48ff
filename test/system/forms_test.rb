# frozen_string_literal: true

require_relative "../support/panels"
require_relative "../support/prepared"
require_relative "../support/stage_hands"

# Forms send what they show: the first and the last choice of everything that sets a piece of each kind, a cue and a rule is chosen on its
# page, and is in the database afterwards. Each kind is reached by the mouse, and what sets it keeps to its panel.
class FormsTest < PreparedTest
  include Panels
  include StageHands

  SCRIPT = File.read(File.expand_path("../support/forms.js", __dir__))

  # In the page itself, not in a frame of it.
  def js(expression)
    answer = page.driver.browser.page.command("Runtime.evaluate", expression:, awaitPromise: true, returnByValue: true)
    refute answer["exceptionDetails"], answer["exceptionDetails"].to_s[0, 600]
    answer.dig("result", "value")
  end

  # @return [Integer] how many choices there were
  # @yield gives what the database has, by name
  def choose_all(form)
    js("begin(#{form.to_json})").times.sum do |round|
      shown = js("round(#{form.to_json}, #{round})")
      yield(:keep) if block_given? && shown.any?
      until_kept(shown) { yield(:kept) } if shown.any?
      assert_empty js("refused")
      shown.size
    end
  end

  def until_kept(shown)
    lacking = nil
    wait_for("what is shown to be kept") { (lacking = missing(shown, yield)).empty? }
  rescue Minitest::Assertion
    flunk "shown, and not kept: #{lacking}; refused: #{js("refused")}"
  end

  # @return [Hash] what was shown and is not what is kept
  def missing(shown, kept)
    shown.select { |name, value| kept.key?(name) && [kept[name], kept["bright"].to_h[name]].none? { |one| plain(one) == plain(value) } }
  end

  def plain(value) = value.is_a?(Array) ? value.map(&:to_s).sort : value.to_s

  # What is set while the other form is shown is of that form alone.
  def kept_piece = TestDatabase.db[:stages].where(id: @stage.id).get(:draft).to_h["pieces"].last.to_h

  def test_what_sets_each_kind_of_piece
    prepare(feed: feed_address)
    on_the_stage
    js(SCRIPT)
    counted = Bavard::Core::Pieces::ALL.to_h do |kind|
      add_piece(kind::LABEL) { assert_empty evaluate_script(REACHED) }
      assert_empty wider(".inspector"), kind::KEY
      [kind::KEY, choose_all("#inspector") { kept_piece }]
    end
    assert_operator counted.values.sum, :>, 200, counted.to_s
  end

  def kept_cues = TestDatabase.db[:shows].where(id: @show.id).get(:cues).to_h["cues"].map(&:to_h)

  def test_what_sets_a_cue
    prepare(feed: feed_address, pieces: [PIECE, PIECE.except("stay_ms").merge("kind" => "alerts")])
    sign_in "/dress/cues/"
    find(".cue-row", text: "Tips").click
    assert_selector "#edit-title", text: "Tips"
    assert_empty wider("#edit")
    assert_equal evaluate_script("document.documentElement.clientWidth"), evaluate_script("document.documentElement.scrollWidth")
    js(SCRIPT)
    assert_operator choose_all("#edit") { kept_cues.find { |cue| cue["id"] == "cue_tip" } }, :>, 40
  end

  def kept_rule(kind)
    gate = TestDatabase.db[:shows].where(id: @show.id).get(:gate).to_h
    gate["sets"][0]["rules"].map(&:to_h).find { |rule| rule["kind"] == kind }
  end

  def test_what_sets_each_rule
    prepare(feed: feed_address)
    sign_in "/gate"
    assert_selector ".rule"
    js(SCRIPT)
    kinds = @show.gate["sets"][0]["rules"].map { |rule| [rule["id"], rule["kind"]] }
    counted = kinds.to_h do |id, kind|
      find(".rule[data-rule=#{id}] .rule-open").click
      assert_selector ".rule.open[data-rule=#{id}]"
      many = choose_all(".rule.open") { |what| what == :keep ? keep_edit : kept_rule(kind) }
      find(".rule[data-rule=#{id}] .rule-open").click
      [kind, many]
    end
    assert_operator counted.values.sum, :>, 30, counted.to_s
  end

  def keep_edit
    click_on "Keep edit"
    assert_no_selector "#edit-foot"
  end
end
