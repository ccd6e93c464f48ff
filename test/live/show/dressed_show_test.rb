# frozen_string_literal: true

require_relative "../../support/drawings"
require_relative "../../support/live_test"

# A running show with shelves, badges, kinds of lines, answers and a feed for the draft alone; without sockets.
class DressedShowTest < LiveTest
  Core = Bavard::Core
  # Stands in the place of a connection.
  STILL = Struct.new(:name) { def halt = nil }.new("still")

  def setup
    super
    @record = make_show(document: with_chat, on_air: true)
    @wren = means.pictures.keep(Drawings.svg, 1)
    @shelf = stores.dress.add_shelf(@record.id, "Own")
    stores.dress.put_emote(@shelf, ":wren:", @wren)
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @show = @shows.run(@record.id)
    @show.ask do |show|
      show.lane(@feed.id).tap do |lane|
        lane.feed.wanted = true
        lane.instance_variable_set(:@runner, STILL)
      end
    end
  end

  def said(text, login: "ann", **more)
    Core::Said.new(login, nil, nil, more[:badges] || [], text, false, false, more[:emotes], more[:reply], more[:first] || false, more[:paid],
      more[:avatar], more[:badge_pictures])
  end

  def take(kind, body, id: nil)
    lane = @show.ask { |show| show.lane(@feed.id) }
    intake = Core::Intake.new(kind, @feed.id, id, nil, clock.call, body)
    @show.ask { |show| show.reception.receive(lane, STILL, intake) }
    moved
  end

  # Time for one more frame: the second question is answered once what the first round led to is out.
  def moved
    clock.now_ms += 40
    2.times { @show.ask { nil } }
  end

  # Cards that came in on air, in order.
  def aired = hub.frames("air:#{@stage.id}").flat_map { |frame| frame.dig("in", "chat1") || [] }
  def again = hub.frames("air:#{@stage.id}").flat_map { |frame| frame.dig("again", "chat1") || [] }
  def drafted = hub.frames("draft:#{@stage.id}").flat_map { |frame| frame.dig("in", "chat1") || [] }

  # What an empty piece will look like is for whoever edits it.
  def test_samples_are_told_to_the_draft_alone
    @show.ask do |show|
      show.desk(@stage.id).editor.edit({"do" => "place", "kind" => "alerts"})
      show.desk(@stage.id).put_on_air(show.now_ms)
    end
    moved
    told = %w[draft air].map { |which| hub.frames("#{which}:#{@stage.id}").filter_map { |frame| frame["style"] }.flat_map { |style| style["pieces"] } }
    alerts = told.map { |pieces| pieces.reverse.find { |piece| piece["kind"] == "alerts" } }
    assert_equal [["alert", "Alerts: a sample"], nil], alerts.map { |piece| piece["sample"]&.values_at(0, 2) }
  end

  def test_a_code_is_drawn_as_its_picture
    take(:line, said("look :wren:!"))
    assert_equal [["text", "look "], ["emote", ":wren:", @wren, 1.0, 0], ["text", "!"]], aired.last["f"]
  end

  def test_what_stands_wears_what_is_put_on_later
    take(:line, said("an :egg: here"))
    assert_equal [["text", "an :egg: here"]], aired.last["f"]
    stores.dress.put_emote(@shelf, ":egg:", @wren)
    contents = Bavard::Live::Wardrobe.load(stores.dress, @record.id)
    @show.ask { |show| show.dress(contents) }
    moved
    assert_equal [":egg:"], again.last["f"].filter_map { |kind, text| text if kind == "emote" }
  end

  def test_an_overlay_lies_over_the_emote_before_it_and_elsewhere_stands_alone
    stores.dress.put_on_shelf(@shelf, [{"code" => ":spark:", "picture" => @wren, "width" => 1, "height" => 1, "frames" => 1, "overlay" => true}], 1)
    @show.ask { |show| show.dress(Bavard::Live::Wardrobe.load(stores.dress, @record.id)) }
    take(:line, said(":wren: :spark: and :spark:"))
    assert_equal [["emote", ":wren:", @wren, 1.0, 0, [":spark:", @wren]], ["text", " and "], ["emote", ":spark:", @wren, 1.0, 0]], aired.last["f"]
  end

  def test_nothing_but_emotes_is_told
    take(:line, said(":wren: :wren:"))
    take(:line, said(":wren: x"))
    assert_equal [1, nil], aired.last(2).map { |card| card["x"] }
  end

  def test_badges_appear_by_themselves_and_can_be_hidden_or_replaced
    take(:line, said("hello", badges: ["subscriber/12", "x_new"], first: true))
    assert_equal [["subscriber", "Subscriber, 12 months"], ["x_new", "X new"], ["first", "First line"]], aired.last["b"].map { |badge|
      badge.first(2)
    }
    until_written
    assert_equal %w[first subscriber x_new], stores.dress.badges(@record.id).map(&:kind).sort
    stores.dress.keep_badge(@feed.id, "x_new", shown: false)
    stores.dress.keep_badge(@feed.id, "subscriber", picture_id: @wren)
    @show.ask { |show| show.dress(Bavard::Live::Wardrobe.load(stores.dress, @record.id)) }
    take(:line, said("again", badges: ["subscriber/12", "x_new"]))
    assert_equal [["subscriber", @wren]], aired.last["b"].map { |badge| badge.values_at(0, 2) }
  end

  def test_a_badge_whose_picture_comes_later_is_drawn_anew
    address = "https://badges.example/ringer.png"
    stores.dress.badge_seen(@feed.id, "ringer", address)
    stores.dress.keep_address(address, @wren, nil, clock.call)
    @show.ask { |show| show.dress(Bavard::Live::Wardrobe.load(stores.dress, @record.id)) }
    take(:line, said("hello", badges: ["ringer/2"]))
    %w[draft air].each do |picture|
      cards = -> { hub.frames("#{picture}:#{@stage.id}").flat_map { |frame| [*frame.dig("in", "chat1"), *frame.dig("again", "chat1")] } }
      wait_for("it to be worn in the #{picture}") do
        moved
        cards.call.last["b"].first.values_at(0, 2) == ["ringer", @wren]
      end
    end
  end

  def test_a_face_that_its_feed_brings_is_worn_once_it_is_made
    face = "cid:sha1+#{"0" * 40}@bob.xmpp.org"
    @show.ask { |show| show.desks.values.first.put_on_air(clock.now_ms, document: with_chat(avatars: "shown")) }
    take(:line, said("hello", avatar: face))
    assert_equal [nil, "a"], aired.last["a"]
    take(:picture, Core::Pictured.new(face, Drawings.svg))
    wait_for("the face") do
      moved
      again.last && again.last["a"].first
    end
    assert_equal @wren, again.last["a"].first
  end

  def test_replies_paid_lines_and_first_lines_come_through_as_their_own
    take(:line, said("so it is", reply: Core::Reply.new("m0", "Bob", "is it?")))
    take(:line, said("for you", paid: Core::Amount.money(500, "EUR"), first: true))
    assert_equal [["reply", {"n" => "Bob", "t" => "is it?"}, nil, nil], ["paid", nil, "5.00 EUR", 1]], aired.map { |card|
      card.values_at("k", "r", "v", "w")
    }
  end

  def test_an_event_is_logged_once_and_not_drawn
    2.times { take(:event, Core::Happened.new(:visit, said(""), 41), id: "e1") }
    until_written
    assert_equal [["visit", {"number" => 41}]], db[:lines].select_map(%i[kind detail]).map { |kind, detail| [kind, detail.to_hash] }
    assert_empty aired
    assert_equal "came with 41 viewers", @show.ask { |show| show.lane(@feed.id).lines.last[:e] }
  end

  def test_a_feed_for_the_draft_alone_is_never_on_air
    @show.ask { |show| show.lane(@feed.id).draft_only = true }
    take(:line, said("only to set things up"))
    assert_empty aired
    assert_equal 1, drafted.size
    until_written
    assert_equal [false, "draft"], db[:lines].select_map(%i[aired trace]).first.then { |aired, trace| [aired, trace.to_a.last[2]] }
    assert db[:feeds].where(id: @feed.id).get(:draft_only)
  end

  def test_the_platforms_own_delete_and_silencing_pull_what_is_held
    hold = Bavard::Core::Gate::Settings.hold("ms" => 60_000)
    @show.ask { |show| show.use_gate(show.record.gate.merge("hold" => hold)) }
    take(:line, said("first"), id: "m1")
    take(:line, said("second"), id: "m2")
    assert_equal 2, @show.ask { |show| show.lines.held }
    take(:delete_line, nil, id: "m1")
    assert_equal 1, @show.ask { |show| show.lines.held }
    take(:clear_person, "ann")
    assert_equal 0, @show.ask { |show| show.lines.held }
    clock.now_ms += 61_000
    @show.ask { true }
    assert_empty aired
    until_written
    assert_equal [[false, true]], db[:lines].select_map(%i[aired pulled]).uniq
  end

  def test_every_step_of_a_line_is_told_in_the_log
    take(:line, said("look :wren:"))
    take(:line, said("!ring"))
    until_written
    steps = db[:lines].order(:id).select_map(:trace).map { |trace| trace.to_a.map { |step, _, what| [step, what.respond_to?(:to_hash) ? what.to_hash["found"].map { |one| one["rule"] } : what] } }
    assert_equal [["received", nil], ["dressed", 1], %w[judged passed], %w[shown aired]], steps[0]
    assert_equal [["received", nil], ["dressed", nil], ["judged", ["command_lines"]], %w[shown nowhere]], steps[1]
  end

  def test_a_silenced_person_leaves_with_everything
    take(:line, said("one", login: "bob"), id: "m1")
    take(:line, said("two"), id: "m2")
    take(:clear_person, "bob")
    assert_equal [aired.first["i"]], hub.frames("air:#{@stage.id}").filter_map { |frame| frame.dig("pulled", "chat1") }.last
    until_written
    assert_equal [["m1", true], ["m2", false]], db[:lines].order(:id).select_map(%i[platform_id pulled])
  end

  def test_names_colours_avatars_and_what_is_set_later_applies_to_what_stands
    take(:line, said("hello", login: "kestrel_ann", avatar: "http://127.0.0.1:1/none.png"))
    edit = lambda { |values|
      @show.ask do |show|
        show.desk(@stage.id).tap do |desk|
          desk.editor.edit({"do" => "set", "piece" => "chat1", "values" => values})
          desk.put_on_air(show.now_ms)
        end
      end
    }
    edit.call("name_form" => "spoken", "avatars" => "shown", "plate_opacity" => 100)
    moved
    assert_equal ["kestrel ann", [nil, "k"]], again.last.values_at("n", "a")
    colours = %w[theirs person line feed one].map do |how|
      edit.call("name_colour" => how)
      moved
      hub.frames("air:#{@stage.id}").filter_map { |frame| frame.dig("colours", "chat1") }.last.first.last
    end
    assert_equal "#5fb8d6", colours[3]
    assert_equal "#f3b634", colours[4]
    colours.first(4).each { |colour| assert_operator Core::Palette::Colour.parse(colour).contrast_ratio(Core::Palette::Colour.parse("#10151a")), :>=, 4.5 }
  end

  def test_an_answer_on_a_feed_that_is_not_connected_is_not_kept_for_later
    @show.ask { |show| show.send_answer("hello all", [@feed.id]) }
    moved
    answer = @show.ask { |show| show.answers.report.first }
    assert_equal [{id: @feed.id, state: :refused, reason: "This feed is not connected just now."}], answer[:feeds]
    assert_empty @show.ask { |show| show.lane(@feed.id).instance_variable_get(:@outbox).take }
  end

  def test_a_platform_that_invents_badges_without_end_fills_nothing
    most = Bavard::Live::Wardrobe::MOST_KINDS
    (most + 20).times { |number| take(:line, said("x", badges: ["kind#{number}"])) }
    until_written
    assert_equal most, db[:badges].count
  end

  def test_a_platforms_own_emotes_are_drawn_once_they_have_come_and_not_while_their_shelf_is_off
    address = "http://127.0.0.1:1/owl.svg"
    means.pictures.instance_variable_get(:@known)[address] = @wren
    owl = -> { said("an :owl:", emotes: Core::Chat::Placed.new(:code_points, [[3, 5, address]])) }
    take(:line, owl.call)
    assert_equal ["emote", ":owl:", @wren, 0, 0], aired.last["f"].last
    until_written
    shelf = stores.dress.shelves(@record.id).find { |kept| kept.shelf.feed_id == @feed.id }.shelf
    assert_equal ["From Test", [":owl:"]], [shelf.name, shelf.emotes.map(&:code)]
    stores.dress.keep_shelf(@record.id, shelf.id, on: false)
    @show.ask { |show| show.dress(Bavard::Live::Wardrobe.load(stores.dress, @record.id)) }
    take(:line, owl.call)
    assert_equal ["text", ":owl:"], aired.last["f"].last
  end

  def test_how_often_an_emote_was_used
    3.times { take(:line, said("a :wren:")) }
    clock.now_ms += 6000
    moved
    until_written
    assert_equal 3, db[:emotes].get(:used)
  end
end
