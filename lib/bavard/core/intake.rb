# frozen_string_literal: true

module Bavard
  module Core
    # One happening as a feed's adapter hands it to the core.
    #
    # kind:: :line, :event, :edit_line, :delete_line, :clear_person, :clear_all, :feed_state, :gap, :answered, :totals, :profile, :voice, :picture
    # feed_id:: the feed it came in on
    # platform_id:: the platform's own id of the line or event, or nil
    # platform_time_ms:: the platform's clock, Unix milliseconds, or nil
    # arrived_at_ms:: ours, Unix milliseconds
    # body:: what the kind carries: Said, Happened, Edited, FeedState, Gap, Answered, Profile, Pictured, Voice::Happening, the key of a person, or
    #   of :totals how many there are in all by TOTALS, with everything that was told before
    # since_ms:: by our clock, before which a line of history was not said, or nil where nobody knows
    Intake = Struct.new(:kind, :feed_id, :platform_id, :platform_time_ms, :arrived_at_ms, :body, :since_ms) do
      # A line or event the platform told again from its history, not as it happened.
      def history?
        case kind
        when :line then body.history
        when :event then body.said.history
        end
      end
    end

    # What a :line carries. colour is "#rrggbb" or nil; action is true for "/me waves".
    #
    # badges:: words such as "subscriber/12"; badge_pictures:: addresses of the platform's pictures for them, or nil
    # emotes:: a Chat::Placed, or nil; reply:: a Reply to what was said before, or nil
    # first_time:: whether the platform says it is this person's first line; paid:: an Amount, or nil
    # avatar:: address of a picture, or nil
    Said = Struct.new(:login, :display_name, :colour, :badges, :text, :action, :history, :emotes, :reply, :first_time, :paid, :avatar,
      :badge_pictures)

    # What an :edit_line carries: what the line with that platform id says from now on. login:: of whoever changed it, or nil where the
    # platform says itself that it was the same; emotes:: a Chat::Placed, or nil
    Edited = Struct.new(:login, :text, :emotes)

    # To what a line answers; any of it may be nil.
    Reply = Struct.new(:platform_id, :name, :text)

    # What an :event carries.
    #
    # what:: one of EVENTS
    # said:: who, and their message (text may be empty); said.paid is what it was worth
    # number:: months of a renewal, subscriptions given, viewers brought along, or nil
    Happened = Struct.new(:what, :said, :number)
    # What a platform says of a person somebody asked about; all but login may be nil. avatar:: address of a picture
    Profile = Struct.new(:login, :name, :words, :last_shown, :followers, :avatar, keyword_init: true)
    # A picture that came itself. address:: by which lines name it; bytes:: as they came
    Pictured = Struct.new(:address, :bytes)
    TOTALS = %w[followers subscriptions].freeze
    EVENTS = %i[follow subscription renewal gift tip purchase visit cause own].freeze

    # What a :feed_state carries.
    #
    # state:: :off, :connecting, :live, :nobody_broadcasting, :waiting, :needs_you
    # reason:: why, in words
    # since_ms:: when it began; retry_at_ms:: when the next try comes (only :waiting)
    # want:: with :needs_you, what: :broadcast (what every broadcast has another of), :permission or :address; else nil
    FeedState = Struct.new(:state, :reason, :since_ms, :retry_at_ms, :want)

    # A stretch in which a feed heard nothing and the platform could not tell it again.
    Gap = Struct.new(:from_ms, :to_ms)

    # What became of a line we were asked to send. answer_id:: ours; went:: whether the platform took it; reason:: why not
    Answered = Struct.new(:answer_id, :went, :reason)
  end
end
