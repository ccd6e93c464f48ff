# frozen_string_literal: true

require "json"
require_relative "../feeds/described"
require_relative "../feeds/outbox"
require_relative "../feeds/platform"
require_relative "../feeds/runner"
require_relative "../steady_clock"

module Bavard
  module Commands
    # bin/platform: says what is wrong in a description, or reads a platform by it and prints what comes.
    class Platform
      USAGE = "bin/platform check FILE, or bin/platform try FILE --room NAME (what it asks for, by its name; --seconds N ends by itself)"
      # Of a feed that is in no database.
      Feed = Struct.new(:id, :address, :password, :permission, :mapping)
      UNENDING_S = 365 * 86_400

      # @param output [IO]
      # @param stop [IO, nil] readable once it is to end
      def initialize(output, stop: nil)
        @output = output
        @stop = stop
      end

      # @return [Boolean] whether it can be used
      # @raise [SystemCallError] where there is no such file
      def check(file)
        description = Feeds::Described::Description.load(file)
        samples = JSON.parse(File.read(file)).fetch("samples", []).size
        @output.puts "#{description.name} can be used. It is reached #{way(description)} at #{description.authorities.join(", ")}; " \
                     "#{read_by(description)}, #{counted(samples, "sample")} that become what they should."
        true
      rescue Feeds::Described::Faulty => error
        error.problems.each { |problem| @output.puts problem }
        false
      end

      # @param given [Hash{String => String}] what is asked for, by its name
      # @raise [Bavard::Error]
      def try(file, given, seconds: UNENDING_S)
        platform = Feeds::Platform.of(Feeds::Described::Description.load(file))
        read = Feeds::Described.read(given.transform_keys { |name| "#{platform.key}.#{name}" }, platform)
        @counts = Hash.new(0)
        runner(platform, Feed.new(0, read[:address], read[:password])).start.tap do |runner|
          IO.select([@stop].compact, nil, nil, seconds)
          runner.stop
        end
        @output.puts @counts.empty? ? "Nothing came." : @counts.sort_by { |_, count| -count }.map { |what, count| "#{count} #{what}" }.join(", ")
      end

      private

      def way(description)
        case description.transport
        when Feeds::Described::Poll then "over HTTP"
        when Feeds::Described::Socket then "over a WebSocket"
        when Feeds::Described::IrcServer then "over IRC"
        else description.transport.lines? ? "by a JSON text a line" : "by server-sent events"
        end
      end

      def read_by(description)
        description.irc? ? counted(description.transport.tags.size, "tag") : counted(description.rules_read.size, "rule")
      end

      def counted(number, what) = "#{number} #{what}#{"s" unless number == 1}"

      def runner(platform, feed)
        clock = SteadyClock.new
        options = {clock:, take: method(:hear), reject: method(:reject), outbox: Feeds::Outbox.new, permission: nil}
        last = nil
        connect = lambda do
          last = Feeds::Described.connection(feed, Feeds::Resume.new(nil, last&.heard_at_ms, last&.cursor), platform:, **options)
        end
        Feeds::Runner.new(feed_id: 0, connect:, clock:, take: method(:hear), fault: ->(error) { @output.puts "fault: #{error&.full_message}" })
      end

      def hear(intake)
        return @output.puts("#{intake.body.state}: #{intake.body.reason}") if intake.kind == :feed_state

        is = is(intake)
        @counts[is] += 1
        @output.puts JSON.generate({"is" => is, **Feeds::Described::Told.fields(intake)})
      end

      # As a description calls it.
      def is(intake)
        case intake.kind
        when :event then intake.body.what
        when :voice then Feeds::Described::Voices::KINDS.key(intake.body.what)
        else intake.kind
        end
      end

      def reject(what)
        @counts["not read"] += 1
        @output.puts "not read: #{what}"
      end
    end
  end
end

if $PROGRAM_NAME == __FILE__
  begin
    what, file, *given = ARGV
    abort Bavard::Commands::Platform::USAGE unless file && (what == "check" ? given.empty? : what == "try" && given.size.even?)
    $stdout.sync = true
    exit Bavard::Commands::Platform.new($stdout).check(file) if what == "check"

    given = given.each_slice(2).to_h { |name, value| [name.delete_prefix("--"), value] }
    stop, tell = IO.pipe
    trap("INT") { tell.write_nonblock(".") }
    Bavard::Commands::Platform.new($stdout, stop:).try(file, given.except("seconds"), seconds: given["seconds"]&.to_f || Bavard::Commands::Platform::UNENDING_S)
  rescue Bavard::Error, SystemCallError => error
    abort error.message
  end
end
