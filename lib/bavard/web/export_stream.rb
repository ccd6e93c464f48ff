# frozen_string_literal: true

require "json"
require_relative "../aside"

module Bavard
  module Web
    # A response's body that is written by a process of its own and passed on as it comes.
    class ExportStream
      SCRIPT = File.expand_path("../exports/run.rb", __dir__)
      CHUNK_BYTES = 65_536

      # @param search [Store::Log::Search]
      def initialize(format, show_id, search, database_url)
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
        process = @process or return
        @process = nil
        Process.kill("KILL", -process.pid)
      rescue Errno::ESRCH
        nil
      ensure
        process&.close
      end
    end
  end
end
