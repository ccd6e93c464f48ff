# frozen_string_literal: true

require_relative "written"

module Bavard
  module Feeds
    module Described
      module Bench
        # What somebody begins with who describes a platform from nothing: by how it is reached.
        module Beginnings
          READS = [
            {"is" => "line", "when" => "type == 'message'", "id" => "id", "time" => "at", "login" => "user.login", "name" => "user.name",
             "text" => "text"},
            {"is" => "delete", "when" => "type == 'delete'", "id" => "id"}
          ].freeze
          COMMON = {"format" => "bavard-platform/1", "key" => "pond", "name" => "Pond", "base" => "https://pond.example",
                    "asks" => {"room" => {"label" => "Room", "example" => "reedmere"}}}.freeze
          WAYS = {
            "poll" => {"ask" => "/rooms/{room}/messages{?after}", "items" => "messages", "keep" => {"after" => "next"}, "wait_ms" => 2000},
            "stream" => {"at" => "/rooms/{room}/events", "items" => "data"},
            "lines" => {"at" => "/rooms/{room}/stream", "as" => "lines"},
            "socket" => {"at" => "wss://pond.example/live{?room}", "opens" => [{"join" => "{room}"}]},
            "irc" => nil
          }.freeze

          IRC = {"format" => "bavard-platform/1", "key" => "pond", "name" => "Pond",
                 "irc" => {"host" => "irc.pond.example", "port" => 6697, "tls" => true,
                           "tags" => {"display_name" => "display-name", "colour" => "color", "badges" => "badges"}}}.freeze

          module_function

          # @return [Boolean] whether nobody has written anything yet
          def untouched?(text) = WAYS.each_key.any? { |way| of(way) == text }

          # @param way [String] of WAYS
          # @return [String]
          def of(way)
            return Written.text(IRC) if way == "irc"

            Written.text(COMMON.merge(way == "lines" ? "stream" : way => WAYS.fetch(way), "reads" => READS))
          end
        end
      end
    end
  end
end
