# frozen_string_literal: true

module Bavard
  module Feeds
    module Described
      # What becomes of one frame, field by field, as samples have it and as people read it.
      module Told
        module_function

        # @param description [Description]
        # @param frame [Object] as the platform sends it: a body, a message, or an event with its data
        # @return [Array<Hash{String => Object}>] of each item in it; {"is" => nil} of one that nothing reads
        def of(description, frame)
          transport = description.transport
          frame = transport.frame(frame) if transport.respond_to?(:frame)
          transport.items(frame).map { |item| item(description.reading.read(description.reading.joined(item, frame), nil, 0)) }
        end

        def item(read)
          return {"is" => nil} unless read.rule

          {"is" => read.rule.is, **(read.intake ? fields(read.intake) : {})}.compact
        end

        def fields(intake)
          {"id" => intake.platform_id, "time" => intake.platform_time_ms, **body(intake)}.compact
        end

        def body(intake)
          case intake.kind
          when :line then said(intake.body)
          when :event then {**said(intake.body.said), "number" => intake.body.number}
          when :edit_line then intake.body.to_h.transform_keys(&:to_s).except("emotes")
          when :clear_person then {"login" => intake.body}
          when :totals then intake.body
          when :profile then intake.body.to_h.transform_keys(&:to_s)
          when :voice then voice(intake.body)
          else {}
          end
        end

        def voice(happening)
          people = happening.people.map { |one| person(one) }
          {**happening.room.to_h.transform_keys(&:to_s), "people" => people.empty? ? nil : people, "levels" => happening.levels}
        end

        def person(one)
          {"key" => one.key, "name" => one.name, "picture" => one.avatar, "marks" => one.marks.empty? ? nil : one.marks.map(&:to_s)}.compact
        end

        def said(said)
          {"login" => said.login, "name" => said.display_name, "text" => said.text, "colour" => said.colour, "badges" => said.badges,
           "avatar" => said.avatar, "action" => said.action || nil, "first" => said.first_time || nil, "paid" => said.paid&.words,
           "reply" => said.reply&.then { |reply| {"id" => reply.platform_id, "name" => reply.name, "text" => reply.text}.compact },
           "emotes" => said.emotes&.then do |placed|
             placed.in_code_points(said.text).map do |from, length, picture|
               [said.text[from, length], picture]
             end
           end}
        end
        private_class_method :item, :body, :voice, :person, :said
      end

      # Frames that were recorded, and what has to become of them: {"frame": …, "becomes": [{"is": "line", "login": "ann"}, …]}. Of what
      # becomes, those fields are compared that are written down.
      module Samples
        MOST = 100

        module_function

        # @yieldparam at [String] the place of each that becomes something else
        # @yieldparam words [String]
        def check(description, samples)
          return yield("", "a list of frames and what “becomes” of each, at most #{MOST}") unless samples.is_a?(Array) && samples.size <= MOST

          samples.each_with_index do |sample, index|
            otherwise(description, sample)&.then { |words| yield("/#{index}", words) }
          end
        end

        # @return [String, nil] in which way something else becomes of it than it says
        def otherwise(description, sample)
          return "a “frame”, and a list of what “becomes” of it" unless sample?(sample)
          return "nothing can be read by this description yet" unless description

          wrong(sample["becomes"], Told.of(description, sample["frame"]))
        end

        def sample?(given) = given.is_a?(Hash) && given.keys.sort == %w[becomes frame] && given["becomes"].is_a?(Array) && given["becomes"].all?(Hash)

        def wrong(wanted, told)
          return "#{told.size} things are in it, and #{wanted.size} are written down" unless told.size == wanted.size

          wanted.zip(told).each_with_index do |(fields, found), index|
            name = fields.keys.find { |field| fields[field] != found[field] } or next
            return "the #{name} of number #{index + 1} is #{found[name].inspect}, not #{fields[name].inspect}"
          end
          nil
        end
        private_class_method :sample?, :wrong
      end
    end
  end
end
