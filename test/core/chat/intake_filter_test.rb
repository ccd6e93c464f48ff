# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/highlight"
require_relative "../../../lib/bavard/core/chat/intake_filter"
require_relative "../../../lib/bavard/core/pieces/pieces"

# What a chat piece takes in, and what it makes stand out.
class IntakeFilterTest < Minitest::Test
  Chat = Bavard::Core::Chat
  Core = Bavard::Core
  HOST = "Odalys Fenn"

  def piece(values = {}) = Core::Pieces::ChatPiece.build("chat1", values)

  def said(text = "hello", badges: [], login: "ann", action: false, paid: nil, first: false, event: nil, feed_id: 1, origin: :feed)
    said = Core::Said.new(login, nil, nil, badges, text, action, false)
    said.paid = paid
    said.first_time = first
    body = event ? Core::Happened.new(event, said, 3) : said
    Chat::Line.from(Core::Intake.new(event ? :event : :line, feed_id, nil, nil, 0, body), id: 1, origin:)
  end

  def take?(values, line) = Chat::IntakeFilter.new(piece(values)).admits?(line)
  def highlight(values, line) = Chat::Highlight.of(line, piece(values), HOST)

  def test_as_it_comes_all_kinds_of_lines_are_taken_in_and_no_events
    [said, said(action: true), said(paid: Core::Amount.money(500, "EUR"))].each { |line| assert take?({}, line), line.kind }
    refute take?({}, said("", event: :follow))
  end

  def test_kinds_are_chosen_events_among_them
    only = {"kinds" => %w[action follow]}
    assert take?(only, said(action: true))
    assert take?(only, said("", event: :follow))
    refute take?(only, said)
    refute take?(only, said("", event: :tip))
  end

  def test_feeds_are_chosen_and_a_rehearsal_comes_from_none
    only = {"feeds" => ["2"]}
    refute take?(only, said(feed_id: 1))
    assert take?(only, said(feed_id: 2))
    assert take?(only, said(feed_id: nil, origin: :rehearsal))
  end

  def test_roles_are_chosen
    only = {"roles" => %w[moderator subscriber]}
    refute take?(only, said)
    assert take?(only, said(badges: ["subscriber/12"]))
    assert take?({"roles" => %w[moderator everyone]}, said)
  end

  def test_another_piece_takes_in_the_same_or_not
    filter = Chat::IntakeFilter.new(piece("feeds" => ["2"], "roles" => %w[host]))
    assert filter.same?(piece("feeds" => ["2"], "roles" => %w[host], "at_most" => 3))
    [{"feeds" => ["2"]}, {"feeds" => ["3"], "roles" => %w[host]}, {"feeds" => ["2"], "roles" => %w[host], "kinds" => %w[said]}].each { |other| refute filter.same?(piece(other)) }
  end

  def test_a_test_line_is_always_taken_in
    assert take?({"kinds" => [], "roles" => %w[host], "feeds" => ["9"]}, said(origin: :test))
  end

  def test_nothing_stands_out_unless_it_is_wanted
    assert_nil highlight({}, said("@Odalys", badges: ["moderator/1"], first: true, paid: Core::Amount.money(5, "EUR")))
  end

  def test_what_stands_out_is_told_by_what_weighs_most
    all = %w[mentions first paid moderators].to_h { |what| ["highlight_#{what}", true] }
    line = {badges: ["moderator/1"], first: true, paid: Core::Amount.money(5, "EUR")}
    assert_equal "paid", highlight(all, said("@Odalys", **line))
    assert_equal "mentions", highlight(all, said("@Odalys look", **line.except(:paid)))
    assert_equal "first", highlight(all, said("hi", **line.except(:paid)))
    assert_equal "moderators", highlight(all, said("hi", badges: ["moderator/1"]))
    assert_nil highlight(all, said("hi"))
  end

  def test_the_host_is_mentioned_by_one_name_by_all_of_them_and_in_any_case
    wanted = {"highlight_mentions" => true}
    ["@Odalys", "@odalysfenn look", "well @FENN"].each { |text| assert_equal "mentions", highlight(wanted, said(text)), text }
    ["Odalys", "@odalysfan", "@ann"].each { |text| assert_nil highlight(wanted, said(text)), text }
  end
end
