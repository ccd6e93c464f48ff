# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/hosts"

# Hosts in a line: openly, and however they are written so that no program takes them for one.
class HostsTest < Minitest::Test
  Hosts = Bavard::Core::Gate::Hosts
  Fold = Bavard::Core::Gate::Words::Fold

  def found(text, hidden: true) = Hosts.in(text, Fold.text(text), hidden:)
  def openly(text) = found(text, hidden: false).map(&:ascii)
  def hidden(text) = found(text).select(&:hidden).map { |host| host.written.strip }
  def maybe?(text) = Hosts.maybe?(Fold.text(text))

  def test_openly_with_where_it_stands
    host = found("see https://www.reedmere.example/hides?x=1 today").first
    assert_equal ["https://www.reedmere.example/hides?x=1", "www.reedmere.example", false, 4, 42], [host.written, host.ascii, host.hidden, host.from, host.to]
    assert_equal ["a.reedmere.example", "marsh.example"], openly("a.reedmere.example,marsh.example:8080/x")
  end

  def test_numbers_are_hosts_where_somebody_would_go_there
    assert_equal %w[192.168.0.7 10.0.0.1], openly("http://192.168.0.7/x or 10.0.0.1:80")
    assert_empty openly("version 1.2.3.4 is out, 12.11.2026 as well")
  end

  def test_names_of_other_scripts_are_told_as_the_net_knows_them_and_as_people_read_them
    host = found("schau bei röhricht.example vorbei").first
    assert_equal ["xn--rhricht-90a.example", "röhricht.example"], [host.ascii, host.shown]
    assert_equal ["reedmere.example"], openly("reedmere。example")
  end

  def test_what_is_no_host_is_none
    ["the end.In the marsh", "so it is.it was", "1.5 km", "e.g.", "mail ann@reedmere.example", "file.of.mine", "...", "a.b"].each do |text|
      assert_empty openly(text), text
    end
  end

  def test_a_short_word_as_ending_counts_where_it_can_be_nothing_else
    assert_empty openly("reedmere.in")
    assert_equal ["reedmere.in"], openly("https://reedmere.in")
    assert_equal ["www.reedmere.in"], openly("www.reedmere.in")
    assert_equal ["reedmere.in"], openly("reedmere.in/log")
    assert_equal ["hides.reedmere.in"], openly("hides.reedmere.in")
    assert_equal ["reedmere.in"], openly("REEDMERE.IN/x")
  end

  def test_an_ending_like_a_name_begins_another_sentence
    assert_empty openly("the end.Example follows")
    assert_equal ["reedmere.example"], openly("REEDMERE.EXAMPLE")
    assert_empty hidden("the \u0435nd.In it")
    assert_equal [["marsh.example", 2, 15], ["marsh.test", 18, 28]], found("x marsh.example y marsh.test").map { |host| [host.written, host.from, host.to] }
  end

  def test_what_ends_like_no_host_is_none_however_it_is_written
    ["reedmere dot nothing", "reedmere[.]nothing", "reedmere dot in", "r\u0435edmere.nothing"].each { |text| assert_empty found(text), text }
    assert_equal ["reedmere (dot) in"], hidden("reedmere (dot) in")
  end

  def test_dots_that_are_spelled_out_or_set_apart
    ["reedmere (dot) example", "reedmere[.]example", "reedmere dot example", "reedmere punkt com", "reedmere { dot } com", "reedmere . com", "reedmere ,com", "www reedmere com"].each do |text|
      assert_equal [text], hidden(text), text
      assert_empty openly(text), text
    end
  end

  def test_schemes_that_are_spelled_so_that_nothing_takes_them_for_one
    ["hxxp://reedmere", "h**p://reedmere", "https : / / reedmere", "ftp://reedmere"].each { |text| assert_equal 1, hidden(text).size, text }
  end

  def test_look_alike_letters_hide_nothing
    assert_equal ["rеedmere.еxample"], hidden("rеedmere.еxample")
  end

  def test_sentences_hide_nothing
    ["I saw it, it was there", "the end. In the marsh", "hello, so nice", "a bird. is it a wren", "dot dot dot", "what a point to make", "one , two"].each { |text| assert_empty hidden(text), text }
  end

  def test_what_is_open_is_not_hidden_as_well
    hosts = found("see www.reedmere.example and marsh dot example")
    assert_equal [["www.reedmere.example", false], ["marsh dot example", true]], hosts.map { |host| [host.written.strip, host.hidden] }
  end

  def test_a_first_look_misses_none_of_them
    ["reedmere.example", "reedmere dot example", "reedmere (dot) com", "https : / / reedmere", "reedmere ,com", "www reedmere com", "reedmere punkt com"].each do |text|
      assert_predicate found(text), :any?, text
      assert maybe?(text), text
    end
    refute maybe?("nothing of the kind, really")
    refute maybe?("time: soon")
  end

  def test_hosts_of_a_list_are_read_however_they_are_written
    {"https://www.Reedmere.example/" => "reedmere.example", "*.reedmere.example" => "reedmere.example", " reedmere.example:80 " => "reedmere.example",
     "Röhricht.example?x" => "xn--rhricht-90a.example"}.each { |given, plain| assert_equal plain, Hosts.plain(given), given }
  end

  def test_hosts_that_look_the_same_count_as_the_same
    assert_equal Hosts.looks("reedmere.example"), Hosts.looks("reedrnere.example")
    assert_equal Hosts.looks("hill0.example"), Hosts.looks("h1llo.example")
    refute_equal Hosts.looks("reedmere.example"), Hosts.looks("reedmere.com")
  end
end
