# frozen_string_literal: true

require "date"
require_relative "../../../core/gate/rules"
require_relative "../../../core/report/report"

module Bavard
  module Web
    # How a broadcast's report is written and drawn on its page.
    module ReportWords
      EVENTS = {"follow" => "Followers", "subscription" => "Subscriptions", "renewal" => "Renewals", "gift" => "Subscriptions given", "tip" => "Tips",
                "paid" => "Paid lines", "purchase" => "Purchases", "visit" => "Visits", "cause" => "For a good cause"}.freeze
      WIDE = 1200
      HIGH = 112
      FOOT = 120
      LABELS = 6

      def grouped(number) = number.to_s.reverse.scan(/\d{1,3}/).join("\u00A0").reverse
      def clock_words(at_ms) = Time.at(at_ms / 1000).strftime("%H:%M")
      def day_words(at_ms) = Time.at(at_ms / 1000).strftime("%-d %b %H:%M")
      def rule_words(rule) = Core::Gate::Rules.label(rule).then { |label| label[0].upcase + label[1..] }
      def worth_words(event) = Core::Report::Sheet.worth(event)
      def event_words(event) = EVENTS.fetch(event.kind, event.kind)

      def span_words(sheet)
        return "" unless sheet

        from = sheet.counted.from_ms
        to = sheet.counted.to_ms
        minutes = ((to - from) / Core::Report::Sheet::MINUTE_MS.to_f).round
        same_day = [from, to].map { |at_ms| Time.at(at_ms / 1000).to_date }.uniq.one?
        "#{day_words(from)} to #{same_day ? clock_words(to) : day_words(to)}, #{length_words(minutes)}"
      end

      def length_words(minutes) = minutes < 60 ? "#{minutes} min" : "#{minutes / 60} h #{minutes % 60} min"

      def totals(sheet)
        all = sheet.totals
        numbers = {"lines" => all[:lines], "on air" => all[:aired], "kept off" => all[:kept_off], "taken away" => all[:pulled],
                   "people" => sheet.counted.people, "of them new" => sheet.counted.new_people}
        numbers.transform_values { |number| grouped(number) }
      end

      # @return [Array<Hash>] x, y, width, height, and what it says
      def bars(sheet)
        all = sheet.bars
        most = [all.map(&:last).max.to_i, 1].max
        wide = WIDE.to_f / all.size
        all.each_with_index.filter_map do |(at_ms, lines), index|
          bar((index * wide) + 1, [wide - 2, 1].max, lines * HIGH / most.to_f, "#{clock_words(at_ms)}: #{lines}") if lines.positive?
        end
      end

      def bar(left, width, high, words) = {x: left.round(1), y: (FOOT - high).round(1), width: width.round(1), height: high.round(1), words:}

      def bars_words(sheet)
        from, to = [sheet.counted.from_ms, sheet.counted.to_ms].map { |at_ms| clock_words(at_ms) }
        "From #{from} to #{to}; the most were #{sheet.busiest.first&.last.to_i} in a minute."
      end

      # @return [Array<Array(Integer, String)>] where a time stands under the bars, and the time
      def bar_labels(sheet)
        all = sheet.bars
        step = [all.size / LABELS, 1].max
        places = (0...all.size).step(step).to_h { |index| [(index * WIDE.to_f / all.size).round, clock_words(all[index].first)] }
        places.reject { |left, _| left > WIDE - 40 }
      end

      # Said where notes were taken for a part of it only.
      def noted(sheet)
        sheet.noted_late? ? %(<p class="said">Noted since #{day_words(sheet.notes.since_ms)}, when Bavard began or the broadcast did.</p>) : ""
      end
    end
  end
end
