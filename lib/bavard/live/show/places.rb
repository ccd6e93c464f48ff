# frozen_string_literal: true

require_relative "elsewhere"
require_relative "neighbours"

module Bavard
  module Live
    # Which of the processes that share an installation runs which show. Each takes its share of those that go on by themselves, and whatever
    # somebody asks it for first; what another leaves, on purpose or not, is taken over.
    class Places
      # By so many more than whoever has least a process may have.
      SLACK = 1
      # So long after the database was away it is left to each to take again what it runs: whoever looks first would take it from them.
      DOUBT_S = 5

      # @param workers [Store::Workers]
      # @param clock [#call] seconds that never jump
      # @param hub [Relay::Nchan, Relay::Hub]
      # @param ids [LineIds]
      # @param lines [Store::Lines]
      # @param neighbours [Neighbours]
      def initialize(workers, hub:, ids:, lines:, neighbours: Neighbours.new, clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) })
        @workers = workers
        @hub = hub
        @ids = ids
        @lines = lines
        @neighbours = neighbours
        @clock = clock
        @known = @asked = {}
        @others = []
        @free_before = []
        @doubted_s = -DOUBT_S
      end

      def here = @workers.address

      def place_of(show_id) = @workers.place_of(show_id)

      # @raise [Elsewhere] where a show that is not to be had runs in a process that goes on
      def look(show_id)
        address = @workers.place_of(show_id)
        raise Elsewhere, address if address && address != here && @workers.alive.include?(address)
      end

      # @raise [Elsewhere] where it is about to go on in another process, or may still run there
      def leaving(show_id)
        look_at_line
        address = @workers.wanted_at(show_id)
        raise Elsewhere, address if address && address != here && @workers.alive.include?(address)

        before = @workers.place_of(show_id)
        raise Elsewhere, before if before && before != here && (doubting? || left_behind?(before))
      end

      # Where the database cannot say it.
      #
      # @raise [Elsewhere] where it ran in another process when we last heard of it
      def last_known(show_id)
        address = @known[show_id]
        raise Elsewhere, address if address && address != here
      end

      # As of the last look, which is a second old: nothing is asked for each page that comes.
      #
      # @raise [Elsewhere] where it ran last in another process that is there
      def lately(show_id)
        address = @known[show_id]
        raise Elsewhere, address if @others.include?(address) && !@asked.key?(show_id)
      end

      # As of the last look.
      #
      # @param taken [Array<Integer>] shows that run anywhere
      # @return [Hash{String => Integer}] how many of them each process that is there runs
      def spread(taken)
        [here, *@others].sort.to_h { |address| [address, taken.count { |id| @known[id] == address }] }
      end

      # @return [String, nil] another process that reaches the database
      def reached_by = @neighbours.reaching(@others)

      # To be called before locks are taken again.
      def look_at_line
        @doubted_s = @clock.call if @workers.anew?
      end

      # A show is ours from now on, and not begun yet.
      #
      # @return [String, nil] where it ran before
      def took(show_id)
        @ids.past(@lines.last_id_of(show_id))
        @workers.place(show_id)
      end

      # Whoever still follows it where it ran before, comes here.
      def came(show, before) = before && show.topics.each { |topic| @hub.came_from(before, topic) }

      # To be called each second.
      #
      # @param wanted [Array<Integer>] shows that go on by themselves, the most urgent first
      # @param taken [Array<Integer>] shows that run anywhere
      # @param running [Array<Integer>] those that run here
      # @param busy [Array<Integer>] of those, which stay here whatever others have
      # @return [Array(Array<Integer>, Array<Integer>)] which to wake here, and which to let go
      def share_out(wanted, taken, running, busy = [])
        @workers.beat
        @known = @workers.places
        @others = @workers.alive - [here]
        @asked = asked = @workers.asked_for
        free = doubting? ? [] : wanted - taken
        left = free & @free_before
        @free_before = free
        to_level(wanted, running, busy, asked)
        [to_wake(free, left, wanted & running, wanted.size) | asked.filter_map { |id, at| id if at == here && !taken.include?(id) },
          asked.filter_map { |id, at| id if at != here && running.include?(id) && @workers.alive.include?(at) }]
      end

      # Asks another to take it: it is let go, and goes on there.
      def ask_for(show_id, address) = @workers.ask_for(show_id, address)

      def leave = @workers.leave

      private

      # Whether it has lost its locks, and goes on.
      def left_behind?(address) = !@workers.alive.include?(address) && @neighbours.runs_yet?(address)

      def doubting? = @clock.call - @doubted_s < DOUBT_S

      # Up to our share at once; what nobody else has taken by the next look as well.
      def to_wake(free, left, ours, all)
        free.first([share(all) - ours.size, 0].max) | left
      end

      def share(all) = (all / @workers.alive.size.to_f).ceil

      # One at a time, the least urgent, from whoever has most to whoever has least; what is on its way counts where it goes. Of several that
      # all gave to the same one, that one would have most.
      def to_level(wanted, running, busy, asked)
        moves = ((wanted & running) - busy).last
        counts = counted(wanted, asked)
        least, fewest = counts.min_by { |address, count| [count, address] }
        most, many = counts.max_by { |address, count| [count, address] }
        @workers.ask_for(moves, least) if moves && most == here && many > fewest + SLACK && !asked.value?(least)
      end

      # @return [Hash{String => Integer}] how many each has that is there, or will have
      def counted(wanted, asked)
        counts = @workers.alive.to_h { |address| [address, 0] }
        @known.merge(asked).slice(*wanted).each_value { |address| counts[address] += 1 if counts.key?(address) }
        counts
      end
    end
  end
end
