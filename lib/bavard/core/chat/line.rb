# frozen_string_literal: true

require_relative "../intake"
require_relative "cleaning"
require_relative "fragments"
require_relative "person"

module Bavard
  module Core
    module Chat
      # One chat message, after it has been made alike for all feeds; or an event, which has a person and often a message
      # too.
      #
      # id:: ours: an Integer that grows with arrival and stays below 2**53
      # kind:: :said, :action, :reply, :paid; or of an event, one of EVENTS
      # origin:: :feed, :rehearsal or :test
      # shown_at_ms:: from when it counts as standing: arrival, or for history the platform's own time, by our clock
      # placed:: emotes the platform pointed out in the text: [offset, length, address] in code points
      # reply, first_time, paid:: as Said has them; number:: as Happened has it
      # edited:: whether its writer has changed it
      # state:: what has become of it (Moderation::LineState), the same for all its copies; nil where nobody can take it away
      Line = Struct.new(:id, :feed_id, :platform_id, :person, :kind, :text, :fragments, :arrived_at_ms, :platform_time_ms,
        :shown_at_ms, :origin, :placed, :reply, :first_time, :paid, :number, :state, :edited)

      # See above.
      class Line
        KINDS = %i[said action reply paid].freeze
        # What stands for fragments nobody has asked for yet.
        Uncut = Struct.new(:emotes)
        # Without anybody's emotes.
        PLAIN = Uncut.new(nil).freeze
        NONE = [].freeze

        # @param intake [Intake] of kind :line or :event
        # @param id [Integer]
        # @param emotes [#cut, nil] as Fragments takes it
        # @param behind_ms [Integer] how far the platform's clock is behind ours
        # @return [Line]
        def self.from(intake, id:, origin: :feed, emotes: nil, behind_ms: 0)
          happened = intake.body if intake.kind == :event
          said = happened ? happened.said : intake.body
          text, placed = cleaned(said)
          line = new(id, intake.feed_id, intake.platform_id, person(intake.feed_id, said), happened ? happened.what : kind_of(said), text,
            nil, intake.arrived_at_ms, intake.platform_time_ms, standing_from(intake, behind_ms), origin, placed, said.reply,
            said.first_time || false, said.paid, happened&.number)
          line.dress(emotes)
        end

        # @param said [Said, Edited]
        # @return [Array(String, Array)] its text, and the emotes in it that the platform pointed out
        def self.cleaned(said)
          said.emotes ? Cleaning.with_ranges(said.text, said.emotes.in_code_points(said.text)) : [Cleaning.text(said.text), NONE]
        end

        # Its writer says it otherwise.
        #
        # @param edited [Edited]
        # @param emotes [#cut, nil] as Fragments takes it
        def reword(edited, emotes)
          text, placed = Line.cleaned(edited)
          self.text = text
          self.placed = placed
          self.edited = true
          dress(emotes)
        end

        # Nothing is left of what it said and of who said it.
        def erase
          self.person = person.erased
          self.text = ""
          self.placed = NONE
          self.reply = nil
          dress(nil)
        end

        alias given_fragments fragments
        private :given_fragments

        # @return [Array<Array>, nil] as Fragments cuts them
        def fragments
          given = given_fragments
          given.is_a?(Uncut) ? dress(given.emotes).fragments : given
        end

        # Cuts the text once somebody asks for its fragments: of all that a show has kept hardly anything is looked at again.
        #
        # @param uncut [Uncut]
        def dress_later(uncut)
          self.fragments = uncut
          self
        end

        # Cuts the text anew, with the emotes there are now.
        def dress(emotes)
          self.fragments = Fragments.cut(text, placed: placed, emotes: emotes, feed_id: feed_id)
          self
        end

        # @param shown [Gate::Shown, nil] how it is written on the picture, where that is otherwise
        # @return [Line]
        def as_shown(shown, emotes)
          return self unless shown

          dup.tap do |line|
            line.text = shown.text
            line.person = person.called(shown.name) if shown.name
            line.placed = shown.placed
            line.dress(emotes)
          end
        end

        # @return [Boolean] whether it is an event and no chat message
        def event?
          !KINDS.include?(kind)
        end

        # @return [Boolean] whether it is not to be seen: on its way, kept off or taken away
        def away? = !(state.nil? || state.seen?)

        # @return [Array<String>] where the pictures are that the platform sent along
        def addresses
          found = placed.map(&:last)
          found << person.avatar if person.avatar
          person.badge_pictures ? found + person.badge_pictures.values : found
        end

        def self.person(feed_id, said)
          login = Cleaning.text(said.login)
          Person.new(feed_id, login, Cleaning.name(said.display_name, login), said.colour, said.badges, avatar: said.avatar,
            badge_pictures: said.badge_pictures)
        end

        # What counts most about it.
        def self.kind_of(said)
          return :paid if said.paid
          return :action if said.action

          said.reply ? :reply : :said
        end

        def self.standing_from(intake, behind_ms)
          return intake.arrived_at_ms unless intake.history? && intake.platform_time_ms

          [[intake.platform_time_ms + behind_ms, intake.since_ms].compact.max, intake.arrived_at_ms].min
        end

        private_class_method :person, :kind_of, :standing_from
      end
    end
  end
end
