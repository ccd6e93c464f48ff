# frozen_string_literal: true

require "json"
require_relative "../core/voice/stretches"
require_relative "../error"

module Bavard
  module Commands
    # bin/talking LEVELS: says who talked when in a recorded conversation.
    class Talking
      USAGE = "bin/talking LEVELS reads JSON Lines such as {\"at_ms\":20,\"person\":\"odalys\",\"dbov\":-31} (- is standard input) " \
              "and prints one JSON line for each stretch of talking."
      LOUDEST = 127

      # @param input [IO] of JSON Lines
      # @param output [IO]
      # @return [Integer] stretches found
      # @raise [Bavard::Error] naming the line that cannot be read
      def run(input, output)
        found = Core::Voice::Stretches.new
        count = 0
        tell = lambda do |stretches|
          stretches.each { |one| output.puts(JSON.generate(person: one.person, from_ms: one.from_ms, to_ms: one.to_ms)) }
          count += stretches.size
        end
        input.each_line.with_index(1) { |line, number| tell.call(found.level(*read(line, number))) unless line.strip.empty? }
        tell.call(found.finish)
        count
      end

      private

      # A level may be given as dBov (below zero) or as −dBov (above).
      def read(line, number)
        given = JSON.parse(line)
        at_ms, person, dbov = given.values_at("at_ms", "person", "dbov") if given.is_a?(Hash)
        unless at_ms.is_a?(Numeric) && dbov.is_a?(Numeric) && !person.to_s.empty? && at_ms.finite? && dbov.finite?
          raise Error, "Line #{number} has no at_ms, person and dbov."
        end

        [at_ms.round, person.to_s, -dbov.abs.clamp(0, LOUDEST)]
      rescue JSON::ParserError, EncodingError
        raise Error, "Line #{number} is not JSON."
      end
    end
  end
end

if $PROGRAM_NAME == __FILE__
  begin
    abort Bavard::Commands::Talking::USAGE unless ARGV.size == 1 && !ARGV[0].start_with?("--")
    input = ARGV[0] == "-" ? $stdin : File.open(ARGV[0])
    Bavard::Commands::Talking.new.run(input, $stdout)
  rescue Bavard::Error, SystemCallError => error
    abort error.message
  end
end
