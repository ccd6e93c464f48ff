# frozen_string_literal: true

require_relative "../lib/bavard/core/cues/settings"
require_relative "cpu"
require_relative "steal"

module Bench
  # Which of 500 cues plays for each of many events, all of one kind, on one core.
  class Cues
    include Cpu

    CUES = 500
    EVENTS = 4000
    RUNS = 8

    def run
      sheet = Bavard::Core::Cues::Settings.sheet("cues" => (0...CUES).map { |number| cue(number) })
      events = (0...EVENTS).map { |number| event(number) }
      least = Float::INFINITY
      _, steal = Steal.around { RUNS.times { least = [least, cpu { events.each { |one| sheet.choose(one, now_ms: 0) } }].min } }
      {events_per_s: (EVENTS / least).round, played: events.count { |one| sheet.choose(one, now_ms: 0).cue }, steal_percent: steal.round(1)}
    end

    private

    # One for any tip, others for a person, an amount, a feed or a role.
    def cue(number)
      more = [{"amount_from" => number, "amount_to" => number + 3}, {"people" => "viewer#{number}"},
        {"feeds" => [(number % 3).to_s], "amount_from" => number}, {"roles" => ["subscriber"], "amount_from" => number / 2}][number % 4]
      Bavard::Core::Cues::Cue.build("cue_#{number}", {"kind" => "tip", "name" => "Cue #{number}"}.merge(number.zero? ? {} : more))
    end

    def event(number)
      Bavard::Core::Cues::Event.new(id: number, kind: "tip", at_ms: number, feed_id: number % 3, login: "viewer#{number % 900}",
        name: "Viewer #{number}", roles: ["viewer"], amount: Bavard::Core::Amount.money((number % 400) * 100, "EUR"), message: "", first_ever: false)
    end
  end
end
