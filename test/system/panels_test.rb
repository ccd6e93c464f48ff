# frozen_string_literal: true

require_relative "../support/panels"
require_relative "../support/prepared"

# What a rule of the Gate is set by stands in a panel beside the others: each choice is a word with room, and is kept.
class PanelsTest < PreparedTest
  include Panels

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
