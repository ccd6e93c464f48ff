# frozen_string_literal: true

require "json"
require_relative "../description"
require_relative "frames"
require_relative "lines"
require_relative "offers"
require_relative "tags"
require_relative "unread"
require_relative "written"

module Bavard
  module Feeds
    module Described
      # A description while somebody writes it, beside what the platform sends: what is wrong in it and where, what becomes of each frame, what
      # nothing reads yet, and what that could be.
      module Bench
        # What is wrong. at:: a JSON pointer; line:: of the text, from 1 on
        Fault = Struct.new(:at, :line, :words)
        # One thing in a frame. fields:: what is read, as samples have it; rule:: which one reads it, or nil
        Item = Struct.new(:is, :fields, :rule, :given, :intake)

        # See above.
        class Bench
          UNREAD = "unread"
          UNREADABLE = "cannot be read"
          # Permission takes the operator: it goes where no door leads.
          OPERATORS = "permission is described by whoever runs Bavard, in the folder of descriptions"

          # @return [Array<Fault>]
          attr_reader :faults
          # @return [Description, nil] nil where nothing can be read by it
          attr_reader :description

          # @param text [String] the description, as it is written; without its samples
          # @param samples [Array<Hash>] as descriptions have them
          def initialize(text, samples = [])
            @text = text
            @faults = []
            @lines = Lines.of(text)
            @document = read(text)
            @samples = samples
            describe if @document
          end

          def fits? = @faults.empty?

          # @return [Hash, nil] all of it, as it is kept and taken along
          def whole = @document && (@samples.empty? ? @document : @document.merge("samples" => @samples))

          # @param frame [Object]
          # @return [Array<Item>]
          def items(frame)
            return [] unless description

            framed = description.transport.respond_to?(:frame) ? description.transport.frame(frame) : frame
            description.transport.items(framed).first(Frames::MOST).map { |item| item(description.reading.joined(item, framed)) }
          end

          # @return [String] what is in a frame, in a few words: "line", "2 lines, delete", "unread"
          def contents(items)
            return "nothing in it" if items.empty?

            items.map { |item| item.is || UNREAD }.tally.map { |is, count| count == 1 ? is : "#{count} × #{is}" }.join(", ")
          end

          # @return [Array<Unread::Field>]
          def unread(item)
            return [] unless description && item.rule

            # Of IRC's messages all but tags is the protocol's own.
            Unread.new(description).of(item.given).select { |field| !description.irc? || field.path.start_with?(Tags::BELOW) }
          end

          # @return [Hash{String => Array<String>}] for each field that nothing reads, what it could be
          def offers(item, unread)
            return unread.to_h { |field| [field.path, Tags.of(field.value)] } if description.irc?

            has = @document["reads"][item.rule].keys
            unread.to_h { |field| [field.path, Offers.of(field.path, field.value, has, item.is)] }
          end

          # @return [Array(Integer, String, nil)] of each sample its number, and what is otherwise than it says
          def samples = @samples.each_with_index.map { |sample, index| [index, Samples.otherwise(description, sample)] }

          # The same with one field more.
          #
          # @param rule [Integer] of which
          # @return [String]
          # @raise [Bavard::Error]
          def with_field(rule, field, path, value)
            return Written.text(Tags.added(@document, field, path)) if description&.irc?

            given = @document && @document["reads"].is_a?(Array) && @document["reads"][rule]
            raise Error.new("That rule is not there any more.", field: "text") unless given.is_a?(Hash) && Rule::SPEAKS.include?(field)

            changed(rule, given.merge(field => Offers.written(field, path, value)))
          end

          # The same with one rule more, for a frame that nothing reads.
          #
          # @param is [String] of Offers::KINDS
          # @return [String]
          # @raise [Bavard::Error]
          def with_rule(is, item)
            raise Error.new("This text is no JSON yet.", field: "text") unless @document
            raise Error.new("That is no message of IRC.", field: "frame") if description&.irc?
            raise Error.new("There is no kind called “#{is}”.", field: "is") unless Offers::KINDS.include?(is)

            condition = Offers.condition(item)
            changed(nil, {"is" => is, "when" => condition, **needed(is, item)}.compact)
          end

          private

          def read(text)
            if (broken = @lines.broken)
              @faults << Fault.new("", broken.line, broken.words)
              return
            end
            document = JSON.parse(text, max_nesting: Given::DEEPEST)
            document.is_a?(Hash) ? document : fault("", "a description is an object")
          rescue JSON::ParserError, EncodingError
            fault("", "this is no JSON")
          end

          def fault(at, words)
            @faults << Fault.new(at, @lines.at(at), words)
            nil
          end

          def describe
            fault("/consent", OPERATORS) if @document.key?("consent")
            fault("/samples", "samples stand beside it here") if @document.key?("samples")
            description = Description.new(@document.except("consent", "samples")) { |at, words| fault(at, words) }
            @description = description if description.reads?
          end

          def item(given)
            read = description.reading.read(given, nil, 0)
            return Item.new(nil, {}, nil, given, nil) unless read.rule

            Item.new(read.rule.is, read.intake ? Told.fields(read.intake) : {}, read.rule.place, given, read.intake)
          rescue StandardError
            Item.new(UNREADABLE, {}, nil, given, nil)
          end

          def changed(rule, given)
            reads = @document["reads"].is_a?(Array) ? @document["reads"].dup : []
            rule ? reads[rule] = given : reads << given
            Written.text(@document.merge("reads" => reads))
          end

          # What such a thing cannot do without, as far as it can be guessed.
          def needed(is, item)
            return {} unless item.is_a?(Hash)

            leaves = item.flat_map { |name, one| one.is_a?(Hash) ? one.map { |inner, value| ["#{name}.#{inner}", value] } : [[name, one]] }
            wanted = [*Rule::NEEDS[is], *(Rule::KINDS.fetch(is) & %w[id text])].uniq
            leaves.reject! { |path, _| Offers::WORDS.include?(path) }
            wanted.to_h { |field| [field, Offers.likeliest(field, leaves, is)] }.compact
          end
        end
      end
    end
  end
end
