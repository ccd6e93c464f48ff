# frozen_string_literal: true

# Judges chat lines; see bin/gate.

require "json"
require "optparse"
require_relative "../core/chat/line"
require_relative "../core/gate/ladder"
require_relative "../core/gate/rule_set"

module Bavard
  # Reads what to judge by, then lines.
  class GateCommand
    def initialize(arguments)
      @options = {}
      OptionParser.new("bin/gate --words LIST | --rules RULES.json < LINES") do |parser|
        parser.on("--words LIST") { |file| @options[:words] = file }
        parser.on("--rules RULES") { |file| @options[:rules] = file }
      end.parse!(arguments)
      abort("bin/gate --words LIST < LINES") if @options.empty?
    end

    def run(input, output)
      ladder = Core::Gate::Ladder.from(rules)
      memory = Core::Gate::Memory.new
      input.each_line(chomp: true).with_index(1) do |text, number|
        output.puts(JSON.generate(judged(text.dup.force_encoding(Encoding::UTF_8).scrub, ladder, memory, number)))
      end
    end

    private

    def rules
      words = @options[:words] and return [Core::Gate::StoppedWords.build("stopped_words", "words" => read(words))]
      Core::Gate::RuleSet.read(JSON.parse(read(@options[:rules])))["rules"]
    end

    def read(file) = File.read(file, encoding: Encoding::UTF_8).scrub

    def judged(text, ladder, memory, number)
      said = Core::Said.new("viewer", "viewer", nil, [], text, false, false)
      line = Core::Chat::Line.from(Core::Intake.new(:line, nil, nil, nil, number, said), id: number)
      verdict = ladder.hear(line, memory)
      {action: verdict.action, rule: verdict.rule, seen: verdict.seen, shown: verdict.pass? ? verdict.shown&.text || line.text : nil}
    end
  end
end

if $PROGRAM_NAME == __FILE__
  begin
    Bavard::GateCommand.new(ARGV).run($stdin, $stdout)
  rescue Bavard::Error, SystemCallError, JSON::ParserError => error
    abort("bin/gate: #{error.message}")
  end
end
