# frozen_string_literal: true

require_relative "portrait"

module Bavard
  module Core
    module Voice
      # One person of the cast: what they wear in every room and every broadcast, whatever they are called there.
      # service, key:: the voice service and its own word for the person; name:: as last seen there
      # short:: what the host calls them, or nil; colour:: or nil; face:: a picture or nil
      # states:: pictures by Portrait::STATES; host:: whether it is the host
      CastMember = Struct.new(:id, :service, :key, :name, :short, :colour, :face, :states, :host, :seen_at_ms, keyword_init: true)

      # Matches files that are dropped to people and their states.
      module Cast
        # What the states may be called in a file's name.
        WORDS = {
          "silent" => %w[silent quiet idle shut closed off still], "talking" => %w[talking talk speaking open on], "loud" => %w[loud shout laughing],
          "muted" => %w[muted mute], "blink" => %w[blink blinking eyes], "face" => %w[face portrait avatar]
        }.freeze
        STATE_OF = WORDS.flat_map { |state, words| words.map { |word| [word, state] } }.to_h.freeze
        # file:: its name; member:: of the cast, or nil; state:: of WORDS' keys
        Match = Struct.new(:file, :member, :state)

        module_function

        # @param files [Array<String>] "ibrahim_talking.png", "Odalys Fenn - mouth open.webp"; without a state, it is the face
        # @param members [Array<CastMember>]
        # @return [Array<Match>]
        def match(files, members)
          known = members.map { |member| [member, names(member)] }
          files.map do |file|
            words = File.basename(file, ".*").gsub(/(\p{Ll})(\p{Lu})/, '\1 \2').downcase(:fold).scan(/\p{L}+|\d+/)
            state = words.filter_map { |word| STATE_OF[word] }.last
            Match.new(file, person(words.reject { |word| STATE_OF[word] }, known), state || "face")
          end
        end

        # @return [Array<String>] states that would be wanted and are not there
        def missing(member) = (%w[silent talking] - member.states.keys)

        def names(member)
          [member.short, member.name, member.key].compact.map { |name| name.downcase(:fold).scan(/\p{L}+|\d+/) }.reject(&:empty?).uniq
        end

        # The whole name, or its first word where only one has it.
        def person(words, known)
          return if words.empty?

          whole = known.find { |_, names| names.any? { |name| name == words || name.join == words.join || within?(name, words) } }
          return whole.first if whole

          found = known.select { |_, names| names.any? { |name| name.first == words.first } }
          found.first.first if found.size == 1
        end

        def within?(name, words) = words.each_cons(name.size).any?(name)
        private_class_method :names, :person, :within?
      end
    end
  end
end
