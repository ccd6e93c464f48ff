# frozen_string_literal: true

require "json"
require_relative "../../../aside"
require_relative "../../../error"
require_relative "../../../fair/places"

module Bavard
  module Web
    # A response's body that is written by a process of its own and passed on as it comes: one of each show, a few of all, for each of them
    # has a thread until its reader is through.
    class ExportStream
      SCRIPT = File.expand_path("../../../exports/run.rb", __dir__)
      CHUNK_BYTES = 65_536
      PLACES = Fair::Places.new(of_all: 4)

      # @param search [Store::Log::Search]
      # @raise [Bavard::Busy] where others are being written
      def initialize(format, show_id, search, database_url)
        PLACES.take?(show_id) or raise Busy, "Another export is being written. Take this one along when that is done."

        @show_id = show_id
        @command = Aside.command("ruby", SCRIPT, format, show_id.to_s, JSON.generate(search.to_h))
        @database_url = database_url
      end

      def each
        @process = IO.popen({"DATABASE_URL" => @database_url}, @command, "rb", err: File::NULL, pgroup: true)
        while (chunk = @process.read(CHUNK_BYTES))
          yield chunk
        end
      ensure
        close
      end

      # Also where the browser has gone away meanwhile.
      def close
        leave
        process = @process or return
        @process = nil
        Process.kill("KILL", -process.pid)
      rescue Errno::ESRCH
        nil
      ensure
        process&.close
      end

      private

      def leave
        PLACES.leave(@show_id) if @show_id
        @show_id = nil
      end
    end
  end
end
