# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/stage_hands"

# What is set stands in panels beside the picture: nothing in them is wider than they are, and every kind of piece can be reached.
class PanelsTest < PreparedTest
  include StageHands

  # In the way of nobody's mouse: what is under the middle of each.
  REACHED = <<~JS
    [...document.querySelectorAll(".draw-menu button")].filter((button) => {
      const { x, y, width, height } = button.getBoundingClientRect();
      return !button.contains(document.elementFromPoint(x + width / 2, y + height / 2));
    }).map((button) => button.textContent)
  JS
  # Names of what reaches out of the panel to the right.
  WIDER = <<~JS
    (() => {
      const edge = document.querySelector("%<panel>s").getBoundingClientRect().right;
      const all = [...document.querySelectorAll("%<panel>s :is(input, button, select, textarea, label)")];
      return all.filter((one) => one.checkVisibility() && one.getBoundingClientRect().right > edge + 1).map((one) => one.name || one.textContent);
    })()
  JS

  def wider(panel) = evaluate_script(format(WIDER, panel:))

  def open_groups(panel)
    execute_script("for (const group of document.querySelectorAll('#{panel} details.more')) group.open = true")
  end

  def test_every_kind_of_piece_is_reached_by_the_mouse_and_what_sets_it_keeps_to_its_panel
    prepare
    on_the_stage
    labels = Bavard::Core::Pieces::ALL.map { |kind| kind::LABEL }
    found = labels.to_h do |label|
      add_piece(label) { assert_empty evaluate_script(REACHED) }
      open_groups(".inspector")
      [label, wider(".inspector")]
    end
    assert_empty(found.reject { |_, names| names.empty? })
  end

  def test_what_a_cue_is_set_by_keeps_to_its_panel
    prepare
    sign_in "/dress/cues/"
    find(".cue-row", text: "Tips").click
    assert_selector "#edit-title", text: "Tips"
    open_groups("#edit")
    assert_empty wider("#edit")
    assert_equal evaluate_script("document.documentElement.clientWidth"), evaluate_script("document.documentElement.scrollWidth")
  end

  # The word of each choice, and how far the arrow of each select lies over its words.
  CHOICES = "[...document.querySelectorAll('.rule.open .some label')].map((label) => label.textContent)"
  # Rules with a list of words, sites or names.
  LISTED = %w[stopped_words links known_bots].freeze
  TIGHT = <<~JS
    [...document.querySelectorAll(".rule.open .select")].filter((box) => {
      const select = box.querySelector("select");
      return Math.abs(box.getBoundingClientRect().width - select.getBoundingClientRect().width) > 1
        || parseFloat(getComputedStyle(select).paddingRight) < 20;
    }).map((box) => box.textContent)
  JS

  def test_every_choice_of_a_rule_is_a_word_that_can_be_pressed_and_kept
    prepare
    sign_in "/gate"
    kinds = Bavard::Core::Gate::RuleSet::DEFAULT["rules"].map { |rule| rule["id"] }
    kinds.each do |id|
      find("[data-key=open-#{id}]").click
      find(".rule.open .rule-whom summary").click
      assert_empty(evaluate_script(CHOICES).select { |word| word.length < 3 }, id)
      assert_empty evaluate_script(TIGHT), id
      assert_empty wider(".rule.open"), id
      assert_selector ".rule.open .list-tools", count: LISTED.include?(id) ? 1 : 0
    end
    find("[data-key=open-stopped_words]").click
    check "German"
    assert_selector "#edit-foot"
    find(".rule.open .rule-whom summary").click
    within("[aria-label='For (none: everyone)']") { check "Supporter" }
    wait_for("the edit to be checked") { has_text?("Undo edit") && find(".rule.open").has_checked_field?("Supporter", match: :first) }
    click_on "Keep edit"
    assert_text "Counts from now on."
    rule = -> { TestDatabase.db[:shows].where(id: @show.id).get(:gate).then { |gate| gate["sets"][0]["rules"].find { |one| one["id"] == "stopped_words" } } }
    wait_for("it to be kept") { rule.call.values_at("starters", "roles") == [%w[german], %w[supporter]] }
  end
end
