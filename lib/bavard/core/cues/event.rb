# frozen_string_literal: true

require_relative "../amount"
require_relative "../intake"

module Bavard
  module Core
    module Cues
      # Something that happened, made alike for all feeds: what a cue sheet is asked about.
      # kind:: one of KINDS; amount:: Amount or nil; months:: of a renewal; number:: of gifts or viewers; message:: the person's words
      # first_ever:: whether it is the first of theirs; test:: whether somebody made it up
      # silent:: whether it is to be tried without a sound
      Event = Struct.new(:id, :kind, :at_ms, :feed_id, :login, :name, :roles, :amount, :months, :number, :message,
        :first_ever, :test, :silent, keyword_init: true) do
        # @param line [Chat::Line] that is an event, or was paid for
        # @return [Event, nil] nil for any other line
        def self.of(line, roles:, first_ever: false, test: false, silent: false)
          kind = line.event? ? line.kind.to_s : (line.paid && "paid")
          return unless kind

          number = line.number
          new(id: line.id, kind:, at_ms: line.shown_at_ms, feed_id: line.feed_id, login: line.person.login, name: line.person.display_name,
            roles:, amount: line.paid, months: kind == "renewal" ? number : nil, number: kind == "renewal" ? nil : number, message: line.text,
            first_ever:, test:, silent:)
        end

        # @return [String] the same for events that can be told as one
        def alike = [kind, feed_id, amount&.currency || amount&.unit].join("/")
      end

      # Kinds of events, and what people call one of them.
      KINDS = {
        "follow" => "follows", "subscription" => "new subscriptions", "renewal" => "renewals", "gift" => "given subscriptions", "tip" => "tips",
        "paid" => "paid lines", "purchase" => "purchases", "visit" => "visits",
        "cause" => "gifts to a good cause", "own" => "your own", "milestone" => "milestones of goals and challenges",
        "reached" => "goals reached", "missed" => "challenges missed"
      }.freeze
      # Those that nobody did: what a piece itself tells of.
      OF_PIECES = %w[milestone reached missed].freeze
    end
  end
end
