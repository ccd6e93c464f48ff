# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/web/stations/all/help"

# Question marks: each stands somewhere, says two sentences, and has a picture.
class HelpTest < Minitest::Test
  Help = Bavard::Web::Help
  WEB = File.expand_path("../../lib/bavard/web/stations", __dir__)
  SCENES = File.read(File.expand_path("../../assets/js/house/scenes.js", __dir__))[/const SCENES = \{(.*?)\n\};/m, 1].scan(/^  (\w+): \(\) =>/).flatten.freeze

  def test_each_says_two_sentences_and_has_a_picture
    Help::TOPICS.each do |key, topic|
      assert_equal 2, topic.words.split(/(?<=\.) (?=[A-Z])/).size, key
      assert topic.words.end_with?("."), key
      assert_includes SCENES, topic.scene, key
    end
    assert_equal SCENES.sort, Help::TOPICS.each_value.map(&:scene).uniq.sort
  end

  def test_each_stands_beside_something_and_nothing_else_is_asked_for
    asked = Dir["#{WEB}/*/*.erb"].flat_map { |view| File.read(view).scan(/help "(\w+)"/).flatten }
    assert_equal Help::TOPICS.keys.sort, asked.sort
  end

  def test_what_it_says_is_escaped
    markup = Object.new.extend(Help).help("fellows")
    assert_match(/data-help="\{&quot;title&quot;:/, markup)
    assert_includes markup, 'aria-label="What is this: Shout-outs"'
  end
end
