# frozen_string_literal: true

require "prop_check"
require "tmpdir"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/platform"
require_relative "examples"

class DescribedReadingTest < Minitest::Test
  Described = Bavard::Feeds::Described

  def read(rule, item, **more)
    document = Examples.document("brook").merge("reads" => [{"is" => "line", "login" => "who"}.merge(rule)], **more.transform_keys(&:to_s))
    description = Described::Description.read(document)
    description.reading.read(description.reading.joined(item, item), 1, 5000).intake
  end

  def said(rule, item) = read(rule, {"who" => "ann"}.merge(item)).body

  def problems(change, of = "kettle")
    Described::Description.read(Examples.document(of).merge(change))
    []
  rescue Described::Faulty => error
    error.problems.map(&:to_s)
  end

  def test_a_line_with_all_that_it_may_have
    item = {"type" => "said", "id" => 7, "sent" => "2026-11-24T05:52:00Z", "by" => {"name" => "ann", "label" => "Ann", "flags" => %w[mod x], "face" => "a7"},
            "html" => "see <b>the</b>&nbsp;wing<script>x</script>", "gift" => {"micros" => 2_500_000, "in" => "eur"}}
    intake = Examples.description("kettle").reading.read(item, 3, 9).intake
    said = intake.body
    assert_equal [:line, 3, "7", 1_795_499_520_000, 9], [intake.kind, intake.feed_id, intake.platform_id, intake.platform_time_ms, intake.arrived_at_ms]
    assert_equal ["ann", "Ann", "see the wing", %w[moderator], "2.50 EUR", "https://pictures.kettle.example/a7.png"],
      [said.login, said.display_name, said.text, said.badges, said.paid.words, said.avatar]
  end

  def test_a_line_that_was_changed
    rule = {"is" => "edit", "id" => "n", "login" => "who", "text" => {"at" => "words", "in" => "html"}}
    intake = read(rule, {"n" => 7, "who" => "ann", "words" => "<b>two</b>"})
    assert_equal [:edit_line, "7", "ann", "two"], [intake.kind, intake.platform_id, intake.body.login, intake.body.text]
    assert_nil read(rule, {"who" => "ann", "words" => "two"}), "of which line nobody knows"
    assert_equal [], problems("reads" => [{"is" => "edit", "id" => "n", "text" => "words"}])
    assert_match(%r{\A/reads/0/text}, problems("reads" => [{"is" => "edit", "id" => "n"}]).first)
    assert_match(%r{/reads/0/name}, problems("reads" => [{"is" => "edit", "id" => "n", "text" => "words", "name" => "who"}]).first)
  end

  def test_who_stands_in_another_list_is_found_there
    description = Examples.description("kettle")
    frame = {"data" => {"people" => [{"id" => 4, "name" => "ann"}, {"id" => 5, "name" => "bo"}]}}
    names = [4, 5, 6, nil].map do |person|
      description.reading.read(description.reading.joined({"type" => "said", "person" => person}, frame), 1, 1).intake&.body&.login
    end
    assert_equal ["ann", "bo", nil, nil], names
  end

  def test_the_first_rule_that_holds_says_what_it_is
    reading = Examples.description("kettle").reading
    kinds = [{"type" => "member", "months" => 3}, {"type" => "member", "months" => 1}, {"type" => "member"}, {"type" => "typing"}, {"type" => "no"}, 7, nil].map do |item|
      reading.read(item.is_a?(Hash) ? item.merge("by" => {"name" => "bo"}) : item, 1, 1).then { |read| [read.rule&.is, read.intake&.body&.then(&:what)] }
    end
    assert_equal [["renewal", :renewal], ["subscription", :subscription], ["subscription", :subscription], ["nothing", nil], [nil, nil], [nil, nil], [nil, nil]], kinds
  end

  def test_times_as_platforms_write_them
    at = 1_795_499_520_000
    {"2026-11-24T05:52:00Z" => at, "2026-11-24T06:52:00.250+01:00" => at + 250, "2026-11-24 05:52:00" => at,
     "2026-11-24T05:52:00.250" => at + 250, "2026-11-24 06:52:00+01:00" => at, "2026-11-24" => nil, 1_795_499_520 => at, 1_795_499_520.25 => at + 250, at => at, at.to_s => at,
     "1795499520" => at, "soon" => nil, -5 => nil, true => nil, [] => nil, 1e300 => nil}.each do |written, ms|
      assert_equal [ms], [read({"time" => "at"}, {"who" => "ann", "at" => written}).platform_time_ms], written.inspect
    end
    assert_equal at, read({"time" => {"at" => "at", "in" => "us"}}, {"who" => "ann", "at" => at * 1000}).platform_time_ms
    assert_nil read({"time" => {"at" => "at", "in" => "s"}}, {"who" => "ann", "at" => "2026-11-24T05:52:00Z"}).platform_time_ms
  end

  def test_money_as_platforms_write_it
    paid = {"minor" => [[500, "5.00 EUR"], ["500", "5.00 EUR"], [1.5, nil], [-5, nil], ["x", nil]],
            "micros" => [[2_500_000, "2.50 EUR"], [1, "0.00 EUR"]],
            "decimal" => [["2.5", "2.50 EUR"], [2.5, "2.50 EUR"], [3, "3.00 EUR"], [Float::INFINITY, nil], ["1e9", nil], [nil, nil]]}
    paid.each do |form, all|
      all.each { |number, words| assert_equal [words], [said({"paid" => {"at" => "n", "in" => form, "currency" => {"is" => "EUR"}}}, {"n" => number}).paid&.words], [form, number].inspect }
    end
    assert_equal "3 JPY", said({"paid" => {"at" => "n", "in" => "decimal", "currency" => "in"}}, {"n" => 3, "in" => "JPY"}).paid.words
    assert_equal "300 drops", said({"paid" => {"at" => "n", "unit" => "drops"}}, {"n" => "300"}).paid.words
    assert_nil said({"paid" => {"at" => "n", "currency" => "in"}}, {"n" => 3, "in" => "euro"}).paid
  end

  def test_roles_from_lists_texts_flags_and_conditions
    table = {"roles" => {"at" => "r", "as" => {"mod" => "moderator", "own" => "host", "2" => "guest"}}}
    {%w[mod x own] => %w[moderator host], "mod, own" => %w[moderator host], {"mod" => true, "own" => false} => %w[moderator], 2 => %w[guest],
     [{"name" => "mod"}] => %w[moderator], nil => [], "moderator" => []}.each { |given, roles| assert_equal roles, said(table, {"r" => given}).badges, given.inspect }
    flags = {"roles" => [{"when" => "is.mod", "is" => "moderator"}, {"when" => "level > `8`", "is" => "host"}]}
    assert_equal [%w[moderator], %w[host], []], [{"is" => {"mod" => true}}, {"level" => 9}, {"level" => "9"}].map { |item| said(flags, item).badges }
  end

  def test_emotes_by_ranges_marks_and_parts
    picture = {"at" => "[2]", "put_into" => "https://x.example/{id}.png"}
    ranges = {"text" => "m", "emotes" => {"ranges" => "e", "from" => "[0]", "last" => "[1]", "picture" => picture, "count" => "utf16"}}
    assert_equal [[2, 4, "https://x.example/owl.png"]], placed(ranges, {"m" => "🪶 :ow:", "e" => [[3, 6, "owl"], [0, 1, "../x"], ["a"], nil]})
    marks = {"text" => "m", "emotes" => {"marks" => ["[:", ":]"], "picture" => {"at" => "@", "put_into" => "https://x.example/{id}.png"}}}
    assert_equal [[4, 7, "https://x.example/owl.png"], [12, 5, "https://x.example/a.png"]], placed(marks, {"m" => "süß [:owl:] [:a:] [:b c:] [:"})
    codes = {"text" => "m", "emotes" => {"codes" => "e", "code" => "n", "around" => [":", ":"], "picture" => "u"}}
    assert_equal [[2, 5, "https://x.example/o.png"], [8, 5, "https://x.example/o.png"]],
      placed(codes, {"m" => "ü :owl: :owl: :no:", "e" => [{"n" => "owl", "u" => "https://x.example/o.png"}, {"n" => "", "u" => "https://x.example/o.png"}, {"n" => "no"}, 7]})
    table = {"text" => "m", "emotes" => {"codes" => "e"}}
    assert_equal [[0, 3, "https://x.example/o.png"]], placed(table, {"m" => "owl!", "e" => {"owl" => "https://x.example/o.png", "!" => 7}})
    parts = {"emotes" => {"parts" => "p", "text" => "t", "picture" => "s"}}
    body = said(parts, {"p" => ["see ", {"t" => ":owl:", "s" => "https://x.example/o.png"}, {"t" => " there"}, 7, nil]})
    assert_equal ["see :owl: there", [[4, 5, "https://x.example/o.png"]]], [body.text, body.emotes.ranges]
  end

  def placed(rule, item) = said(rule, item).then { |said| said.emotes.in_code_points(said.text) }

  def test_words_of_html_and_markdown
    html = ->(text) { said({"text" => {"at" => "m", "in" => "html"}}, {"m" => text}).text }
    {"a<br>b <img alt=':owl:' src=x onerror=y> c" => "a b :owl: c", "1 < 2 & 3" => "1 < 2 & 3", "<p>a</p><p>b</p>" => "a b", "<style>x</style>y" => "y",
     "#{"<b>" * 600}deep" => "deep"}.each { |text, words| assert_equal words, html.call(text), text[0, 60] }
    markdown = ->(text) { said({"text" => {"at" => "m", "in" => "markdown"}}, {"m" => text}).text }
    {"**loud** and *soft* `x`" => "loud and soft x", "[words](https://x.example)" => "words", "2 \\* 3" => "2 * 3", "snake_case_name" => "snake_case_name"}
      .each { |text, words| assert_equal words, markdown.call(text), text }
  end

  def test_nothing_that_counts_is_taken_from_where_viewers_write
    line = {"is" => "line", "login" => "who", "text" => "body.words", "name" => "called"}
    {"roles" => {"at" => "body", "as" => {"mod" => "moderator"}}, "paid" => {"at" => "body.words", "unit" => "drops"}, "number" => "called.n",
     "badges" => "called", "first" => "body.words"}.each do |field, value|
      told = problems({"joins" => {}, "reads" => [line.merge(field => value)]})
      assert_match(%r{\A/reads/0/#{field}: “.*” is what a viewer writes}, told.first, field)
    end
    assert_empty problems({"joins" => {}, "reads" => [line.merge("roles" => {"at" => "body_rank", "as" => {"mod" => "moderator"}})]})
  end

  def test_what_is_wrong_is_said_with_its_place
    {{"format" => 2} => "/format: ", {"base" => "ftp://x"} => "/base: ", {"hosts" => ["https://a.example/x"]} => "/hosts/0: ", {"more" => 1} => "/more: ",
     {"reads" => []} => "/reads: ", {"reads" => [{"is" => "song"}]} => "/reads/0/is: ", {"reads" => [{"is" => "line"}]} => "/reads/0/login: ",
     {"reads" => [{"is" => "line", "login" => "a["}]} => "/reads/0/login: “a[” is no path", {"reads" => [{"is" => "clear", "text" => "a"}]} => "/reads/0/text: ",
     {"reads" => [{"is" => "line", "login" => "sort_by(a, &b)[0]"}]} => "/reads/0/login: sort_by is not taken here",
     {"poll" => {"ask" => "/x/{nobody}"}} => "/poll/ask: nothing here is called “nobody”", {"poll" => {"ask" => "https://other.example/"}} => "/poll/ask: other.example:443 is not",
     {"poll" => {"ask" => "x y"}} => "/poll/ask: ", {"poll" => {"ask" => "/", "ends" => {"404" => "sad"}}} => "/poll/ends/404: ", {"poll" => nil} => "/poll: ",
     {"stream" => {"at" => "/"}} => "/: say how it is reached", {"asks" => {"A b" => "x"}} => "/asks/A b: ", {"asks" => {"token" => "x"}} => "/asks/token: “token” is filled in by Bavard itself", {"key" => "No"} => "/key: ",
     {"joins" => {"by" => {"in" => "a"}}} => "/joins/by: ", {"headers" => {"x" => "{who}"}} => "/headers/x: ",
     {"consent" => 7} => "/consent: ", {"consent" => {"authorize" => "oauth"}} => "/consent/authorize: a path", {"consent" => {}} => "/consent/token: this is missing"}.each do |change, told|
      assert_includes problems(change).join("\n"), told, change.inspect
    end
  end

  def test_every_example_can_be_used
    assert_operator Examples.all.size, :>=, 3
    Examples.all.each do |name|
      document = Examples.whole(name)
      assert_operator document["samples"].size, :>=, 1
      assert_equal name, Described::Description.read(document).key
    end
  end

  def test_samples_say_what_becomes_of_frames_and_what_does_not
    frame = {"data" => {"messages" => [{"type" => "said", "id" => 7, "by" => {"name" => "ann"}, "html" => "hi"}]}}
    told = ->(becomes) { problems("samples" => [{"frame" => frame, "becomes" => becomes}]) }
    assert_empty told.call([{"is" => "line", "login" => "ann"}])
    assert_equal ['/samples/0: the text of number 1 is "hi", not "ho"'], told.call([{"is" => "line", "text" => "ho"}])
    assert_equal ["/samples/0: 1 things are in it, and 0 are written down"], told.call([])
    assert_equal ["/samples/0: a “frame”, and a list of what “becomes” of it"], problems("samples" => [7])
    assert_match(%r{\A/samples: }, problems("samples" => {}).first)
  end

  def test_a_file_that_cannot_be_used_is_left_out_with_its_place_and_no_other
    Dir.mktmpdir do |folder|
      {"a" => JSON.generate(Examples.whole("kettle")), "b" => "{", "c" => JSON.generate(Examples.whole("brook").merge("key" => "No")), "d" => "x" * 200_000,
       "e" => "\xff"}.each { |name, text| File.write(File.join(folder, "#{name}.json"), text) }
      said = []
      platforms = Bavard::Feeds::Platform.described(folder) { |words| said << words.delete_prefix("#{folder}/") }
      assert_equal [%w[kettle], %w[b c d e]], [platforms.keys, said.map { |words| words[0] }]
      assert_equal "c.json: /key: “No” cannot be it", said[1]
    end
  end

  # Whatever comes: nothing raises, nobody is more than a viewer by what a viewer writes, and no text is longer than it may be.
  def test_anything_may_come
    generators = PropCheck::Generators
    leaf = generators.one_of(generators.printable_string, generators.integer, generators.boolean, generators.nil, generators.float)
    readings = Examples.all.map { |name| Examples.description(name).reading }
    words = Examples.all.flat_map { |name| JSON.generate(Examples.document(name)).scan(/[\w']+/) }.map { |word| word.delete("'") }.uniq
    key = generators.one_of(*words.map { |word| generators.constant(word) })
    item = generators.hash_of(key, generators.one_of(leaf, generators.array(leaf, max: 3), generators.hash_of(key, leaf, max: 6)), max: 10)
    PropCheck.forall(item) do |given|
      readings.each do |reading|
        intake = reading.read(given, 1, 1).intake
        assert(intake.nil? || intake.is_a?(Bavard::Core::Intake))
      end
    end
  end
end
