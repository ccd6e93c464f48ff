# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/error"
require_relative "../../../lib/bavard/core/gate/words/finder"

# Evasions are seen through, innocents are let alone.
class StoppedWordsTest < Minitest::Test
  Words = Bavard::Core::Gate::Words
  SET = File.expand_path("../../gate_set", __dir__)

  def lines(name) = File.readlines(File.join(SET, "#{name}.txt"), encoding: "UTF-8", chomp: true).reject { |line| line.start_with?("# ") }
  def set_finder = @set_finder ||= Words::Finder.new(lines("words"))
  def seen(text, *words) = Words::Finder.new(words).find(text).map { |found| text[found.from...found.to] }

  def test_at_least_97_in_100_evasions_are_caught
    evasions = lines("evasions").map { |line| line.split("\t", 2) }
    missed = evasions.reject { |_, text| set_finder.find(text).any? }
    assert_operator evasions.size, :>=, 400
    assert_operator missed.size, :<=, evasions.size * 0.03, missed.first(20).inspect
  end

  def test_at_most_one_innocent_in_200_is_hit
    innocents = lines("innocents").map { |line| line.split("\t", 2) }
    hit = innocents.select { |_, text| set_finder.find(text).any? }
    assert_operator innocents.size, :>=, 400
    assert_operator hit.size, :<=, innocents.size * 0.005, hit.first(20).inspect
  end

  def test_where_it_stands_is_told_in_the_text_as_it_is_written
    assert_equal ["g o o s e b r a i n"], seen("such a g o o s e b r a i n see", "goosebrain")
    assert_equal ["ｇｏｏｓｅ\u200bbrain"], seen("a ｇｏｏｓｅ\u200bbrain!", "goosebrain")
    assert_equal ["goose\u202Eniarb"], seen("you goose\u202Eniarb", "goosebrain")
  end

  def test_wildcards_begin_end_surround_and_stand_for_one_letter
    assert_equal ["goosey"], seen("goosey mongoose", "goose*")
    assert_equal ["mongoose"], seen("goosey mongoose", "*goose")
    assert_equal %w[goose goose], seen("goosey mongoose", "*goose*")
    assert_equal ["goise"], seen("goise goiise", "go?se")
    assert_equal ["g00sey"], seen("g00sey", "goose*")
  end

  def test_a_pattern_with_nothing_to_look_for_stops_nothing
    assert_empty seen("anything at all", "*", "?", "**?*", "", " ", "...", "a")
  end

  def test_words_in_a_row
    assert_equal ["shut   UP"], seen("please shut   UP now", "shut up")
    assert_empty seen("shut the door, up we go", "shut up")
    assert_equal ["s h u t u p"], seen("s h u t u p", "shut up")
  end

  def test_scripts_without_spaces_have_their_words_found_anywhere
    assert_equal ["ﾊﾞｶ鳥"], seen("あのﾊﾞｶ鳥だ", "バカ鳥")
    assert_empty seen("はか鳥", "ばか鳥")
  end

  def test_one_doubled_letter_in_a_short_word_may_be_another_word
    assert_empty seen("the bass drum", "bas")
    assert_equal ["baaas"], seen("baaas", "bas")
    assert_equal ["nesstlings"], seen("nesstlings", "nestlings")
  end

  def test_a_word_torn_apart_is_found_behind_a_letter_of_its_own_and_however_late
    assert_equal ["d a d o"], seen("d d a d o", "dado")
    assert_equal ["g r u b w i t"], seen("#{"reed, heron. " * 60}g r u b w i t", "grubwit")
  end

  def test_signs_are_letters_alone_and_in_lines_of_any_script
    assert_equal ["gr @ bwit"], seen("gr @ bwit", "grabwit")
    assert_equal ["gr@bwit"], seen("öl gr@bwit", "grabwit")
    assert_equal ["gr@b"], seen("gr@b-wit", "grab")
  end

  # What stands around it is no part of the word, and what it is part of is no word.
  def test_signs_beside_a_word_do_not_hide_it
    %w[x$grubwit heron<grubwit a+grubwit+b ok|grubwit].each { |text| assert_equal ["grubwit"], seen(text, "grubwit"), text }
  end

  def test_a_letter_that_stands_alone_for_no_reason_belongs_to_the_word_beside_it
    assert_equal ["g rubwit"], seen("a g rubwit", "grubwit")
    assert_equal ["grubwi t"], seen("grubwi t", "grubwit")
    assert_empty seen("a rubwit", "arubwit")
    assert_empty seen("grub wit, gru bwit", "grubwit")
  end

  def test_looking_changes_nothing_in_what_is_looked_at
    finder = Words::Finder.new(["grubwit"])
    tokens = Words::Token.all("g rubwit g r u b")
    before = tokens.map { |token| token.parts.map(&:dup) }
    finder.find("g rubwit g r u b", "g rubwit g r u b", tokens)
    assert_equal before, tokens.map(&:parts)
  end

  # What was looked at once is not looked at again, and what is torn over it is found all the same.
  def test_words_that_are_known_as_clean_are_found_where_they_are_pieces_of_one
    finder = Words::Finder.new(%w[grubwit bluewing])
    pieces = ["gru", "b", "wit", "g", "rub-w", "it", "\u{1F33F}", "blue", "w", "ing", "see:", "(g", "rubwit)"]
    pieces.each { |piece| assert_empty finder.find(piece), piece }
    torn = ["g rubwit", "g rub-w it", "gru\u{1F33F}b wit", "gru \u{1F33F} b \u{1F33F} wit", "see: g r u b w i t", "(g rubwit)"]
    assert_equal torn, torn.select { |text| finder.find(text).any? }
  end

  # Whoever sends nothing but words that never were fills no memory with them.
  def test_long_words_are_not_remembered
    length = 1_009
    finder = Words::Finder.new(%w[grubwit])
    500.times { |number| finder.find("#{number.to_s.rjust(length, "x")} #{number.to_s.rjust(length, "y")}") }
    GC.start
    kept = ObjectSpace.each_object(String).count { |text| text.length == length && text.match?(/[xy]{900}/) }
    assert_operator kept, :<, 100
  end

  def test_one_list_knows_nothing_of_what_another_found
    clean = Words::Finder.new(%w[bluewing])
    strict = Words::Finder.new(%w[grubwit])
    2.times do
      assert_empty clean.find("a grubwit")
      assert_equal 1, strict.find("a grubwit").size
    end
  end

  def test_numbers_are_numbers
    assert_empty seen("101 at 5:07, K41207", "lol", "sol", "kal")
  end

  def test_stars_stand_for_letters_where_three_others_are_there_for_each
    assert_equal ["gr*bwit"], seen("gr*bwit g**bwit", "grubwit")
    assert_equal ["bi*d"], seen("bi*d b*d", "bird", "bid")
  end

  def test_from_six_letters_on_one_letter_too_many_is_a_slip_on_purpose
    assert_equal %w[bitterr bitter bbiird biiird], seen("bitterr bitter bbird biird bbiird biiird", "bitter", "bird")
    assert_equal %w[gaggle gagggle gaaggle], seen("gaggle gagggle gaaggle gaggla gagle", "gaggle")
  end

  def test_two_letters_drawn_as_one
    assert_equal %w[harnrner vvit], seen("harnrner rnud vvit", "hammer", "mud", "wit")
    assert_equal %w[harnmer], seen("harnmer vv", "hammer", "w")
    assert_empty seen("harnmar vvat", "hammer", "wit")
  end

  def test_signs_and_digits_around_a_word_are_not_of_it
    assert_equal %w[grubwit grubwit grubwit grubwit gr|ubwit grubwit], seen("7grubwit7 grubwit99 <grubwit> **grubwit** gr|ubwit @grubwit99", "grubwit")
  end

  def test_which_parts_may_be_one_word
    assert_equal ["g.r.u.b.w.i.t"], seen("x g.r.u.b.w.i.t x", "grubwit")
    assert_equal ["gr,ubwit", "grubw.it", "g'r'u'b'w'i't"], seen("gr,ubwit grubw.it g'rubwit g'r'u'b'w'i't", "grubwit")
    assert_equal ["gr/ubwit", "grub.wit"], seen("gr/ubwit grub.wit grub/wit", "grubwit")
    assert_equal ["grub :honk: wit", "gr :a: ub :b: wit"], seen("grub :honk: wit. gr :a: ub :b: wit. grub, wit", "grubwit")
    assert_equal ["grub \u{1FABF} wit", "grub\u{1FABF}wit"], seen("grub \u{1FABF} wit grub\u{1FABF}wit", "grubwit")
    assert_empty seen("it's", "its")
    assert_empty seen("grub :)wit", "grubwit")
  end

  def test_short_parts_beside_one_another_are_words_unless_there_are_three
    seen_in = {["m ucky", "mucky"] => ["m ucky"], ["gru b wit", "grubwit"] => ["gru b wit"], ["gr ub wi t", "grubwit"] => ["gr ub wi t"],
               ["gr ub wit", "grubwit"] => [], ["mu d", "mud"] => [], ["m ud", "mud"] => [], ["muck y", "mucky"] => []}
    assert_equal seen_in.values, seen_in.keys.map { |text, word| seen(text, word) }
  end

  def test_letters_drawn_with_signs
    assert_equal ["g()()sebrain"], seen("a g()()sebrain b", "goosebrain")
    assert_equal ["|<estre|"], seen("x |<estre| y", "kestrel")
    assert_equal ["\\/\\/ren", "|)uck", "[]wl"], seen("\\/\\/ren |)uck []wl", "wren", "duck", "owl")
    assert_empty seen("g() [] |)", "goosebrain", "duck")
  end

  def test_letters_more_than_a_word_has
    letters = Words::Letters
    meant = ->(written, word) { letters.meant?(written, word) }
    assert_equal [true, true, false, false], [meant["gooose", "goose"], meant["goose", "goose"], meant["goosse", "goose"], meant["gose", "goose"]]
    assert_equal [false, false, true], [meant["gooooo", "goose"], meant["xgoose", "goose"], meant["ggoosse", "goose"]]
    assert_equal [false, true, true], [meant["101", "lol"], meant["1o1", "lol"], meant["101", "101"]]
    assert_equal [true, false, true], [meant["nesstling", "nestling"], meant["nesst", "nest"], meant["nessst", "nest"]]
  end

  def test_of_very_many_the_first_are_told
    most = Words::Finder::MOST_FOUND
    found = Words::Finder.new(["wren"]).find("wren " * (most + 5))
    assert_equal [most, 0, (most - 1) * 5], [found.size, found.first.from, found.last.from]
  end

  def test_words_that_stand_on_their_head
    assert_equal ["ʇıʍqnɹƃ"], seen("a ʇıʍqnɹƃ!", "grubwit")
    assert_equal ["ʇᴉʍqnɹƃ", "\u05DFooɟ"], seen("ʇᴉʍqnɹƃ, \u05DFooɟ", "grubwit", "fool")
    assert_equal "kilim is", Words::Fold.text("kılım ıs")
  end

  def test_what_characters_read_as
    read = {"a :honk: b ab::c" => "a \u001F b ab::c", "٣४９𝟗" => "3499", "カナ" => "かな", "ﬃ Ⅷ" => "ffi viii", "bım hⅰ ｌ" => "bim hi l",
            "siIly" => "si|ly", "Ilse" => "ilse", "e\u0301\u0301" => "e", "a\u200bb" => "ab", "ゲﾀﾞ" => "げだ"}
    assert_equal read.values, read.keys.map { |text| Words::Fold.text(text) }
    assert_equal ["x \u001F b", [0, 1, 2, 8, 9]], Words::Fold.mapped("x :honk: b")
  end

  # What was read before is forgotten when it is too much, never mixed up.
  def test_more_characters_than_are_remembered
    all = (0x4E00...0x9FFF).map { |code| [code].pack("U") }
    read = Words::Fold.text(all.join(" "))
    assert_equal read, Words::Fold.text(all.join(" "))
    assert_equal all.join, read.delete(" ")
  end

  def test_patterns_made_to_take_for_ever_take_no_longer_than_others
    evil = Words::Finder.new(["a*a*a*a*a*a*a*a*a*a*b", "*a?a?a?a?a?a*", "#{"a" * 58}*"])
    text = "#{"a" * 4000} #{"a " * 2000} #{"a." * 1000}"
    steps = 0
    trace = TracePoint.new(:line) { steps += 1 }
    trace.enable { evil.find(text) }
    assert_operator steps, :<, 4_000_000
  end

  # Whatever it stands in, a word between two blanks is a word; and no place is said that is not in the text.
  def test_any_text_is_looked_at_without_a_fault
    random = Random.new(11)
    found = (1..1000).count do
      text = [*noise(random), " grubwit ", *noise(random)].join
      finds = set_finder.find(text)
      finds.each_cons(2) { |one, next_one| assert_operator one.to, :<=, next_one.from, text }
      finds.each { |one| assert (0..text.length).cover?(one.from...one.to), text }
      finds.any? { |one| text[one.from...one.to] == "grubwit" }
    end
    assert_operator found, :>, 990
  end

  def noise(random) = Array.new(random.rand(1..30)) { random.rand(0..0x2FFFF) }.grep_v(0xD800..0xDFFF).map { |code| [code].pack("U") }

  def test_folding_is_the_same_with_and_without_places
    (lines("evasions") + lines("innocents")).each { |line| assert_equal Words::Fold.text(line), Words::Fold.mapped(line)[0] }
  end
end
