# frozen_string_literal: true

require_relative "vitals"

module Bavard
  module Web
    # What stands still until it is looked at: of this process, of each show that is awake and of each of its feeds, in Prometheus' text
    # format. Names of shows and feeds are their hosts' and stay out of it: there are their numbers.
    class Gauges
      # name:: with what it counts in; type:: as Prometheus knows them; words:: what it is; samples:: [labels, value] each
      Gauge = Struct.new(:name, :type, :words, :samples) do
        # @return [String]
        def to_s
          lines = samples.map { |labels, value| "#{name}#{written(labels)} #{value}" }
          ["# HELP #{name} #{words}", "# TYPE #{name} #{type}", *lines].join("\n")
        end

        private

        def written(labels)
          return "" if labels.empty?

          "{#{labels.map { |label, value| %(#{label}="#{value.to_s.gsub(/[\\"\n]/, "\\" => "\\\\", '"' => '\\"', "\n" => '\\n')}") }.join(",")}}"
        end
      end

      # @param site [Site]
      def initialize(site)
        @site = site
        @shows = site.shows.running
      end

      # @return [String]
      def to_s = [*pages, *machine, *log, *shows, *feeds].join("\n").concat("\n")

      private

      def one(name, words, value, type = "gauge") = Gauge.new("bavard_#{name}", type, words, [[{}, value]])

      def pages
        [one("pages", "Pages and screens that follow something", @site.hub.pages),
          one("pages_relayed", "Of those, how many have a relay in front that holds their line", @site.hub.relayed),
          one("relay_up", "1 while the relay takes frames, or where there is none", @site.hub.there? ? 1 : 0),
          one("pages_behind", "Of those, how many read slower than they are sent to", @site.hub.behind),
          one("deliveries_total", "Frames sent to pages", @site.hub.delivered, "counter"),
          one("shows_awake", "Shows that run in this process", @shows.size),
          one("cut_off", "1 while others reach the database and this process, which has let go of its shows, does not",
            @site.shows.instead ? 1 : 0),
          one("shows_begun", "1 once all that go on by themselves run after a start", @site.shows.begun? ? 1 : 0)]
      end

      def machine
        gc = GC.stat
        [one("threads", "Threads of this process", Thread.list.size),
          one("open_files", "Files and sockets that this process has open", Vitals.open_files),
          one("open_files_most", "How many it may have open", Process.getrlimit(:NOFILE).first),
          one("memory_bytes", "Memory of this process", Vitals.memory_kb * 1024),
          one("garbage_collections_total", "Garbage collections", gc[:count], "counter"),
          one("garbage_collections_of_all_total", "Of those, that look at everything", gc[:major_gc_count], "counter"),
          one("garbage_collection_seconds_total", "Seconds in which everything stood still for them", gc[:time] / 1000.0, "counter"),
          one("objects", "Objects that are alive", gc[:heap_live_slots]),
          one("clock_ahead_seconds", "How far the machine's clock is ahead of the time that lines are given", @site.clock.offset_ms / 1000.0)]
      end

      def log
        journal = @site.journal
        [one("database_up", "1 while the database answers", journal.trouble ? 0 : 1),
          one("log_waiting", "Entries that wait in memory to be written", journal.waiting),
          Gauge.new("bavard_disk_free_bytes", "gauge", "Room that is left on the disk of the data folder", disk),
          one("log_lost_total", "Entries that were given up, or that the database refused", journal.lost, "counter"),
          one("log_in_files", "Shows whose log waits in files", journal.spilling.size),
          Gauge.new("bavard_log_shedding", "gauge", "Shows of which something was let go within a minute",
            journal.shedding.map { |id| [{show: id}, 1] })]
      end

      # None where nobody can say.
      def disk = @site.disk.free_bytes&.then { |bytes| [[{}, bytes]] } || []

      def shows
        [each_show("screens", "gauge", "Screens that show something of it", &:screens_open),
          each_show("processor_seconds_total", "counter", "Seconds of a processor since it was woken") { |show| show.processor_s.round(3) },
          each_show("mailbox", "gauge", "What its feeds have brought and it has not taken yet") { |show| show.waiting_of_feeds.each_value.sum },
          each_show("held_lines", "gauge", "Lines that wait for their time or for somebody") { |show| show.lines.held }]
      end

      def each_show(name, type, words) = Gauge.new("bavard_show_#{name}", type, words, @shows.map { |show| [{show: show.id}, yield(show)] })

      def feeds
        heard = each_feed("heard_seconds", "When it was last heard, Unix time") do |lane, labels|
          lane.heard_at_ms&.then { |ms| [labels, ms / 1000.0] }
        end
        [each_feed("state", "1 at the state that a feed is in") { |lane, labels| [{**labels, state: lane.state.state}, 1] },
          each_feed("wanted", "1 where its host wants it connected") { |lane, labels| [labels, lane.feed.wanted ? 1 : 0] }, heard]
      end

      def each_feed(name, words)
        samples = @shows.flat_map do |show|
          show.lanes.each_value.filter_map { |lane| yield lane, {show: show.id, feed: lane.feed.id, kind: lane.feed.kind} }
        end
        Gauge.new("bavard_feed_#{name}", "gauge", words, samples)
      end
    end
  end
end
