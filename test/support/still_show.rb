# frozen_string_literal: true

require_relative "live_test"

# A show that goes on only when the test says so: no thread of its own, a clock that stands still, and what its screens and
# prompters were told.
class StillShowTest < LiveTest
  Core = Bavard::Core
  GONE = %w[out pulled].freeze

  # @param prompter [Boolean] whether somebody has opened it
  def begin_show(record = @record, prompter: true)
    @record = stores.shows.find(record.id)
    @show = Bavard::Live::Show.new(@record, means)
    @lane = @show.lanes.values.first
    @reception = @show.reception
    open_prompter if prompter
    advance
  end

  def open_prompter = @show.prompter.open(clock.now_ms)

  # As after a kill: another show from what is kept.
  def begin_again
    until_written
    begin_show
  end

  def said(login, text, badges: [], paid: nil)
    Core::Said.new(login, login.capitalize, nil, badges, text, false, false).tap { |said| said.paid = paid }
  end

  def take(kind, body, platform_id: next_id)
    @reception.receive(@lane, nil, Core::Intake.new(kind, @lane.id, platform_id, nil, clock.now_ms, body))
    advance
  end

  def next_id = "m#{@number = (@number || 0) + 1}"

  # @return [Integer] the line's id
  def say(text, login: "ann", **more)
    take(:line, said(login, text, **more.slice(:badges, :paid)), **more.slice(:platform_id))
    frames("prompter:#{@record.id}").reverse_each.find { |frame| frame["lines"]&.any? }["lines"].last["i"]
  end

  def advance(ms = 100)
    clock.now_ms += ms
    @show.send(:advance)
  end

  def frames(topic) = hub.frames(topic)

  # @return [Array<Integer>] ids of the lines that stand in a chat piece of a page that got all frames of a topic
  def painted(topic = "air:#{@stage.id}", piece = "chat1")
    frames(topic).each_with_object([]) do |frame, standing|
      GONE.each { |gone| standing.reject! { |id| Array(frame.dig(gone, piece)).include?(id) } }
      standing.concat(Array(frame.dig("in", piece)).map { |card| card["i"] })
    end
  end

  # @return [String] what the prompter says of a line
  def state(line_id) = frames("prompter:#{@record.id}").filter_map { |frame| state_in(frame, line_id) }.last

  def state_in(frame, line_id)
    frame.dig("states", line_id.to_s) || frame["lines"]&.find { |card| card["i"] == line_id }&.fetch("s")
  end

  def hold(ms, **more)
    @show.use_gate(@show.record.gate.merge("hold" => Core::Gate::Settings.hold({"ms" => ms}.merge(more.transform_keys(&:to_s)))))
    advance
  end
end
