# frozen_string_literal: true

require_relative "../../support/still_show"

# What prompters are told, and what is drawn only for whoever asks.
class PrompterDeskTest < StillShowTest
  def setup
    super
    begin_show(make_show(document: with_chat, on_air: true))
  end

  def test_while_nobody_has_opened_it_nothing_is_drawn_or_told_and_whoever_does_gets_all
    begin_again
    old = say("before")
    until_written
    begin_show(prompter: false)
    told = frames("prompter:#{@record.id}").size
    take(:line, said("bo", "meanwhile"))
    @show.pull_line(old, "Teo")
    @show.prompter.mark(old, "answered", true)
    advance
    assert_equal told, frames("prompter:#{@record.id}").size
    assert_nil @show.prompter.due_ms
    whole = JSON.parse(open_prompter.catch_up(nil))
    assert_equal [["before", "pulled", ["answered"]], ["meanwhile", "aired", nil]], whole["lines"].map { |card| [card["f"].map(&:last).join, card["s"], card["mk"]] }
    now = say("now")
    assert_equal [now], JSON.parse(open_prompter.catch_up(whole["at"]))["missed"].flat_map { |frame| frame["lines"] }.map { |card| card["i"] }
  end

  # Pages that open then are told of all of it anyway, and one that is open begins anew.
  def test_what_was_said_before_a_restart_is_drawn_for_whoever_asks_and_told_to_nobody
    ids = (1..(Bavard::Live::PrompterDesk::SHOWN + 3)).map { |number| say("line #{number}") }
    begin_again
    told = frames("prompter:#{@record.id}").size
    advance(1000)
    assert_empty frames("prompter:#{@record.id}").drop(told).flat_map { |frame| frame["lines"].to_a }
    assert_equal ids.drop(3), @show.prompter.whole.call[:lines].map { |card| card[:i] }
    old = ids.first
    @show.prompter.mark(old, "answered", true)
    @show.pull_line(old, "Teo")
    advance
    assert_equal "pulled", state(old)
    card = @show.prompter.card_of(@lane, stores.lines.find(@record.id, old))
    assert_equal ["line 1", ["answered"], "pulled"], [card[:f].map(&:last).join, card[:mk], card[:s]]
  end
end
