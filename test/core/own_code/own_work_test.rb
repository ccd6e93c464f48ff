# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/style/piece_style"

# Own CSS and own markup: what is safe passes, bound to the piece; all else is named with its line.
class OwnWorkTest < Minitest::Test
  OwnCss = Bavard::Core::OwnCode::OwnCss
  OwnMarkup = Bavard::Core::OwnCode::OwnMarkup
  StyleNames = Bavard::Core::OwnCode::StyleNames
  ASSETS = File.expand_path("../../../assets", __dir__)
  SCOPE = '[data-piece="chat1"]'

  def css(text) = OwnCss.read(text, "chat1")

  def test_safe_css_passes_bound_to_its_piece
    {".name { color: red }" => "#{SCOPE} .name{color:red}", ".line.odd > .name::before{content:\"a\"}" => "#{SCOPE} .line.odd > .name::before{content:\"a\"}",
     ".chat .text, .own-x{opacity:.5}" => "#{SCOPE}.chat .text,#{SCOPE} .own-x{opacity:.5}",
     ".line[data-kind=\"action\"]:nth-child(2n + 1){filter:blur(1px) drop-shadow(0 0 2px #000)}" => "#{SCOPE} .line[data-kind=\"action\"]:nth-child(2n + 1){filter:blur(1px) drop-shadow(0 0 2px #000)}",
     ".text{--mine:1em;width:calc(100% - var(--mine))}" => "#{SCOPE} .text{--mine:1em;width:calc(100% - var(--mine))}"}.each do |given, made|
      assert_equal [made, []], [css(given).css, css(given).errors], given
    end
  end

  def test_nothing_reaches_out
    ["body{color:red}", "#stage{color:red}", ".piece{left:0}", "*{color:red} html{margin:0}", "@import url(x.css);", "@font-face{src:url(x)}",
      ".text{background:url(http://x/y)}", ".text{background:u\\72l(x)}", ".text{background:URL(x)}", ".text{background-image:image-set('x' 1x)}",
      ".text{width:expression(alert(1))}", ".line{position:fixed}", ".text{behavior:x}", ".text{-moz-binding:x}", ".text:hover{color:red}",
      ".text{--x:url(y)}", "@media screen{.text{color:red}}", ".chat{position:static}", ".chat{width:9999px}", ".chat{transform:none}",
      "[onclick]{color:red}", ".text{content:attr(data-secret)}", "</style><script>{}"].each do |given|
      read = css(given)
      refute_match(/url|http|fixed|body|#stage|html|\.piece|script|attr\(|expression|static|9999|@media|@font|import|onclick|hover/i, read.css.delete_prefix(SCOPE), given)
      refute_empty read.errors, given
    end
  end

  def test_what_loads_is_said_to_load_and_what_is_not_known_is_named
    said = ->(value) { css(".text{background:#{value}}").errors.map(&:last).join }
    assert_match(/nothing is loaded from elsewhere/, said["url(x)"])
    assert_match(/nothing is loaded from elsewhere/, said["url('x')"])
    assert_match(/“image-set\(\)” is not used here/, said["image-set('x' 1x)"])
    assert_match(/“fixed” is not used here/, said["rgb(fixed)"])
  end

  def test_a_piece_names_nothing_beside_it_and_paints_nothing_around_it
    [".chat ~ .chat .name", ".chat+*", ".chat.chat ~ .line", ".chat:not(.name) + .name"].each do |selector|
      assert_equal ["", 1], css("#{selector}{color:red}").then { |read| [read.css, read.errors.size] }, selector
    end
    assert_equal "#{SCOPE}.chat > .line ~ .line{color:red}", css(".chat > .line ~ .line{color:red}").css
    %w[.chat .chat.chat .chat[data-kind] .chat:first-child .chat::before].product(["box-shadow:0 0 9px red", "outline:9px solid", "filter:blur(9px)", "animation:x 1s",
      "padding:9px", "border:9px solid red", "border-image:linear-gradient(red,red)", "z-index:9", "width:9px", "transform:none"]).each do |selector, declaration|
      assert_equal ["", 1], css("#{selector}{#{declaration}}").then { |read| [read.css, read.errors.size] }, [selector, declaration]
    end
    assert_equal "#{SCOPE}.chat{border-radius:9px;color:red}", css(".chat{border-radius:9px;color:red}").css
    assert_equal "#{SCOPE}.chat .line{box-shadow:0 0 9px red}", css(".chat .line{box-shadow:0 0 9px red}").css
  end

  def test_errors_name_their_line
    read = css(".name { color: red }\n\n.text {\n  color: blue;\n  position: fixed;\n}\nbody { color: red }")
    assert_equal [5, 7], read.errors.map(&:first)
    assert_includes read.css, "color:blue"
  end

  def test_keyframes_are_the_pieces_own
    read = css("@keyframes hop { from { opacity: 0 } 50%, to { opacity: 1; background: url(x) } } .name { animation: hop 1s }")
    assert_equal "@keyframes own-chat1-hop{from{opacity:0}50%, to{opacity:1}}\n#{SCOPE} .name{animation:own-chat1-hop 1s}", read.css
  end

  def test_steps_of_keyframes_are_steps_and_their_name_is_theirs_only_where_it_moves
    read = css("@keyframes hop { sideways { opacity: 0 } 0% { opacity: 1 } }\n.name { content: \"hop\"; animation: hop 1s, hopper 2s }")
    assert_equal [[1, "“sideways” is no step of keyframes."]], read.errors
    assert_equal "@keyframes own-chat1-hop{0%{opacity:1}}\n#{SCOPE} .name{content:\"hop\";animation:own-chat1-hop 1s, hopper 2s}", read.css
  end

  def test_markup_may_be_so_deep_and_no_deeper
    nested = ->(depth) { OwnMarkup.read("#{"<div>" * depth}{text}#{"</div>" * depth}") }
    assert_empty nested[OwnMarkup::DEEPEST].errors
    assert_includes nested[OwnMarkup::DEEPEST + 1].errors.map(&:last), "It goes too deep."
    assert_nil nested[OwnMarkup::DEEPEST + 1].tree
  end

  def test_the_text_is_shown_wherever_it_stands_and_must_be
    assert_equal ["It shows no {text}."], OwnMarkup.read("<b>{name}</b>").errors.map(&:last)
    assert_equal [["b", "own-x own-y", [["{text}"]]]], OwnMarkup.read("<b class=\"own-x own-y\">{text}</b>").tree
    assert_match(/begin with “own-”/, OwnMarkup.read("<b class=\"own-x other\">{text}</b>").errors.first.last)
    assert_equal [2], OwnMarkup.read("{text}\n<b id=\"x\">a</b>").errors.map(&:first)
  end

  def test_whatever_is_written_every_rule_is_bound_to_the_piece
    words = PropCheck::Generators.one_of(PropCheck::Generators.printable_ascii_string,
      PropCheck::Generators.constant(".name{color:red}"), PropCheck::Generators.constant("}"), PropCheck::Generators.constant("/*"),
      PropCheck::Generators.constant("{"), PropCheck::Generators.constant(","), PropCheck::Generators.constant("@keyframes a"), PropCheck::Generators.constant("\""))
    PropCheck.forall(PropCheck::Generators.array(words, min: 1, max: 9)) do |given|
      css(given.join(" ")).css.each_line do |line|
        assert(line.start_with?(SCOPE, "@keyframes own-chat1-"), line)
      end
    end
  end

  def test_markup_is_a_few_elements_and_placeholders
    read = OwnMarkup.read("<div class=\"own-head\">{badges} <b>{name}</b></div>\n<div>{text}</div>")
    assert_equal [["div", "own-head", [["{badges}"], " ", ["b", nil, [["{name}"]]]]], " ", ["div", nil, [["{text}"]]]], read.tree
    assert_empty read.errors
    assert_nil OwnMarkup.read("  ").tree
  end

  def test_markup_that_tries_more_is_not_used_and_says_why
    ["<script>x</script>{text}", "{text}<img src=x onerror=y>", "<b onclick=\"x\">{text}</b>", "<b class=\"name\">{text}</b>", "{text}{secret}", "no text",
      "<b>{text}", "{text}</b>", "<a href=\"x\">{text}</a>", "#{"<b>" * 40}{text}#{"</b>" * 40}", "{text} <", "<iframe></iframe>{text}"].each do |given|
      read = OwnMarkup.read(given)
      assert_nil read.tree, given
      refute_empty read.errors, given
    end
    assert_equal 3, OwnMarkup.read("<b>\n\n<u>{text}</u></b>").errors.first.first
  end

  def test_published_classes_and_attributes_are_what_the_page_draws
    drawn = File.read(File.join(ASSETS, "css/lines.css")) + Dir[File.join(ASSETS, "js/link/*.js")].map { |file| File.read(file) }.join
    StyleNames::CLASSES.each_key { |name| assert_match(/["'. ]#{name}[\s"'{,:.>\[]/, drawn, name) }
    StyleNames::ATTRIBUTES.each_key do |name|
      data = name.delete_prefix("data-")
      assert(drawn.include?(name) || drawn.include?("dataset.#{data}"), name)
    end
  end

  def test_published_properties_are_set_and_used
    piece = Bavard::Core::Pieces::ChatPiece.build("chat1", "name_plate_opacity" => 50)
    house = Bavard::Core::Stage::Document.empty["house"]
    set = Bavard::Core::Style::PieceStyle.of(piece, house)[:css].keys + %w[--name --name-rgb --feed-rgb]
    used = File.read(File.join(ASSETS, "css/lines.css"))
    StyleNames::PROPERTIES.each do |name|
      assert_includes set, name
      assert_includes used, "var(#{name}"
    end
  end

  def test_what_is_published_is_what_may_be_used
    told = File.read(File.expand_path("../../../docs/style-names.md", __dir__))
    StyleNames::CLASSES.each_key { |name| assert_includes told, "`.#{name}`" }
    (StyleNames::PROPERTIES + StyleNames::ATTRIBUTES.keys).each { |name| assert_includes told, name }
  end
end
