# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/moderation/deed"

class DeedTest < Minitest::Test
  Deed = Bavard::Core::Moderation::Deed

  def deed(what, **detail) = Deed.new(id: 1, at_ms: 1, by: "Teo", what:, line_id: 7, about: "ann", detail: detail.transform_keys(&:to_s))

  BACK = {
    ["pull", {was: "held"}] => [:put_back, 7], ["let_go", {was: "off"}] => [:take_again, 7, "off"],
    ["leave_out", {feed: 2, lines: [[7, "aired"], [9, "held"]]}] => [:let_in, "ann", 2, [7, 9]], ["leave_out", {}] => [:let_in, "ann", nil, []],
    ["take_back", {feed: 2, until: 5}] => [:leave_out, "ann", 2, 5], ["pin", {}] => [:pin, 7, false], ["unpin", {}] => [:pin, 7, true],
    ["large", {before: 3}] => [:enlarge, 3], ["small", {}] => [:enlarge, 7], ["read", {}] => [:mark, 7, "read", false],
    ["answered", {}] => [:mark, 7, "answered", false], ["unmark", {mark: "read"}] => [:mark, 7, "read", true]
  }.freeze

  def test_each_deed_has_its_way_back
    BACK.each { |(what, detail), way| assert_equal way, deed(what, **detail).way_back, what }
    assert_equal Deed::TAKEN_BACK.sort, BACK.keys.map(&:first).uniq.sort
    assert_equal Deed::CHANGES.sort, BACK.values.map(&:first).uniq.sort
  end

  def test_other_deeds_have_none
    (Deed::WORDS.keys - Deed::TAKEN_BACK).each { |what| assert_equal [nil, false], [deed(what).way_back, deed(what).way_back?], what }
    assert_predicate deed("pull"), :way_back?
  end

  def test_every_deed_has_words_and_one_of_a_later_version_its_name
    assert_empty (Deed::TAKEN_BACK + Deed::LASTING) - Deed::WORDS.keys
    assert_equal ["marked as read", "sang about"], [deed("read").words, deed("sang about").words]
  end
end
