# frozen_string_literal: true

require "json"
require_relative "../events"
require_relative "../../given"

module Bavard
  module Feeds
    module Described
      module Bench
        # What a platform sends, as people have it at hand: pasted JSON, a text a line, an event stream, or a browser's record of its
        # network (HAR 1.2).
        module Frames
          MOST = 500
          LARGEST_BYTES = 4 * 1024 * 1024
          EVENT = /^(?:data|event|id|retry):/
          STREAM = "text/event-stream"

          module_function

          # @param text [String] as it was pasted
          # @return [Array<Object>] frames, at most MOST, as samples have them
          # @raise [Bavard::Error] where nothing can be read of it
          def read(text)
            text = text.dup.force_encoding(Encoding::UTF_8).scrub.delete_prefix("\uFEFF").strip
            found = (whole(text) || events(text) || lines(text)).first(MOST)
            raise Error.new("There is nothing in it that could be a frame.", field: "frames") if found.empty?

            found
          end

          # All of it is one JSON text: a frame, several, or a record of the network.
          def whole(text)
            found = Given.json(text)
            return har(found["log"]["entries"]) if found.is_a?(Hash) && found["log"].is_a?(Hash) && found["log"]["entries"].is_a?(Array)

            found.is_a?(Array) ? found : [found]
          rescue JSON::ParserError
            nil
          end

          def events(text)
            return unless text.match?(EVENT)

            [].tap do |found|
              stream = Events.new
              stream.feed("#{text}\n\n".b) { |event, data| found << {"event" => event, "id" => stream.last_id, "data" => parsed(data)} }
            end
          end

          def lines(text) = text.lines(chomp: true).map(&:strip).reject(&:empty?).map { |line| message(line) }

          # @return [Object] what stands there as JSON, else {"plain": the text}
          def message(line)
            Given.json(line)
          rescue JSON::ParserError
            {"plain" => line}
          end

          def parsed(data)
            Given.json(data)
          rescue JSON::ParserError
            data
          end

          # Answers that are JSON or events, and messages that came over WebSockets.
          def har(entries)
            entries.grep(Hash).flat_map do |entry|
              content = Given.object(Given.object(entry["response"])["content"])
              [*answer(content), *Given.list(entry["_webSocketMessages"]).grep(Hash).filter_map { |one| message(one["data"]) if came?(one) }]
            end
          end

          def came?(message) = message["type"] == "receive" && message["data"].is_a?(String)

          def answer(content)
            text = content["text"]
            return [] unless text.is_a?(String) && !text.empty?

            text = text.unpack1("m").force_encoding(Encoding::UTF_8).scrub if content["encoding"] == "base64"
            return events(text) || [] if content["mimeType"].to_s.start_with?(STREAM)

            content["mimeType"].to_s.include?("json") ? [Given.json(text)] : []
          rescue JSON::ParserError
            []
          end
          private_class_method :whole, :events, :lines, :message, :parsed, :har, :came?, :answer
        end
      end
    end
  end
end
