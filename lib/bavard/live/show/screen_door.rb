# frozen_string_literal: true

require_relative "../part"

module Bavard
  module Live
    # What the pages that show a stage do: they open, report, and close.
    class ScreenDoor < Part
      # @param did [Messages::ScreenDid]
      def receive(did)
        case did.what
        when :opened then did.desk.screens.opened(did.connection, now_ms)
        when :heard then report(did.desk, did.connection, did.text)
        when :closed
          did.desk.screens.closed(did.connection)&.then { |screen| @show.notes.closed(did.desk, screen) }
          players.each { |player| player.closed(did.connection.id, now_ms) }
        end
      end

      private

      # What plays sounds, each on one screen.
      def players = [sounding, shout_outs]

      def report(desk, connection, text)
        read = desk.screens.heard(connection, text, now_ms) do |line_id, at_ms, screen|
          kept = lines[line_id] or next

          @show.sightings.add(line_id, ["painted", at_ms, [desk.stage.name, screen.words]])
          time = @show.screen_times.painted(kept, at_ms, screen.since_ms)
          [@show.lead, @show.small_leads, @show.notes].each { |told| told.painted(time) } if time
        end
        heard(desk, connection, read)
      end

      def heard(desk, connection, read)
        desk.screens[connection]&.then { |screen| @show.notes.heard(desk, screen) }
        @show.mishaps.rejected(:screen, "a report that cannot be read") unless read
        return players.each { |player| player.failed(connection.id, now_ms) } if desk.screens.silent?(connection)

        players.each { |player| player.there(now_ms) }
      end
    end
  end
end
