# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/words/automaton"

# Many strings found in one going: the same as looking for each of them at each place.
class AutomatonTest < Minitest::Test
  Automaton = Bavard::Core::Gate::Words::Automaton
  G = PropCheck::Generators

  def found(strings, text)
    found = []
    Automaton.new(strings).each_in(text) { |index, ends_at| found << [index, ends_at] }
    found.sort
  end

  def looked_for(strings, text)
    strings.each_with_index.flat_map do |string, index|
      (0..(text.length - string.length)).select { |at| text[at, string.length] == string }.map { |at| [index, at + string.length] }
    end.sort
  end

  def test_those_within_each_other_are_all_found
    assert_equal [[0, 4], [1, 4], [2, 6]], found(%w[he she hers], "ushers")
    assert_equal [[0, 1], [0, 2], [0, 3], [1, 2], [1, 3], [2, 3]], found(%w[a aa aaa], "aaa")
  end

  def test_the_same_twice_is_found_twice = assert_equal [[0, 2], [1, 2]], found(%w[lo lo], "lo")
  def test_without_strings_nothing_is_found = assert_empty found([], "anything")
  def test_beyond_the_first_plane_characters_count_once = assert_equal [[0, 3]], found(["\u{1F33B}\u{1F41D}"], "a\u{1F33B}\u{1F41D}b")

  def test_it_finds_what_looking_at_each_place_finds
    letters = G.one_of(G.constant("a"), G.constant("b"), G.constant("\u{1F33B}"))
    word = G.array(letters, min: 1, max: 5).map(&:join)
    PropCheck.forall(G.array(word, max: 8), G.array(letters, max: 40).map(&:join)) do |strings, text|
      assert_equal looked_for(strings, text), found(strings, text)
    end
  end
end
