# frozen_string_literal: true

require_relative "live_test"

# A running show with a piece of each kind that counts or introduces, and what is told to its screens.
class GatheringTest < LiveTest
  Core = Bavard::Core
  PIECES = [["goal", {"counted" => "followers", "to" => 3, "title" => "Three of you"}], ["newest", {}],
    ["challenge", {"total" => 10, "title" => "Feeder", "begins" => "follow", "minutes" => 5}], ["counter", {"command" => "!ringed", "cool_down_s" => 1}],
    ["shout_out", {"length_s" => 5, "cool_down_s" => 60}], ["captions", {"least_s" => 1, "reading_speed" => 10}], ["alerts", {}]].freeze

  PIECES_BUILT = PIECES.to_h { |kind, values| ["#{kind}1", Core::Pieces.kind(kind).build("#{kind}1", values)] }.freeze

  def setup
    super
    @record = make_show(document: Core::Stage::Document.empty.merge("pieces" => PIECES_BUILT.values), on_air: true)
    begin_show
  end

  def begin_show
    @record = stores.shows.find(@record.id)
    @show = Bavard::Live::Show.new(@record, means)
    @lane = @show.lanes.values.first
    @reception = @show.reception
    advance
  end

  def said(login, text, badges: [], paid: nil)
    Core::Said.new(login, login.capitalize, nil, badges, text, false, false).tap { |said| said.paid = paid }
  end

  def take(kind, body)
    @number = (@number || 0) + 1
    @reception.receive(@lane, nil, Core::Intake.new(kind, @lane.id, "m#{@number}", nil, clock.now_ms, body))
    advance
  end

  def happen(what, login, text = "", number: nil, paid: nil) = take(:event, Core::Happened.new(what, said(login, text, paid:), number))
  def say(login, text, badges: []) = take(:line, said(login, text, badges:))

  def advance(ms = 100)
    clock.now_ms += ms
    @show.send(:advance)
  end

  def air = hub.frames("air:#{@stage.id}")
  def last(key, piece = nil) = air.reverse_each.find { |frame| frame.key?(key) && (piece.nil? || frame[key].key?(piece)) }&.fetch(key)
  def live(piece) = last("live", piece)[piece]
  def told_of(piece) = last("counted", piece)[piece]

  def reached = @show.cues.queue.waiting.count { |one| one.cue["kind"] == "reached" }
end
