# frozen_string_literal: true

module Bavard
  module Core
    module OwnCode
      # The names own CSS may use. They are published in docs/style-names.md, and never change without notice: a test fails
      # when one goes.
      module StyleNames
        # What stands where in a chat piece.
        CLASSES = {
          "chat" => "the whole piece", "stack" => "the pile of lines", "line" => "one line with its gap",
          "plate" => "the ground of a line and all on it",
          "head" => "all but the text, where the name stands above or in a column", "body" => "the text, likewise", "mark" => "the feed’s mark",
          "avatar" => "the avatar", "badge" => "one badge", "time" => "the time", "name" => "the name", "text" => "the text",
          "emote" => "an emote", "emoji" => "an emoji", "mention" => "a mention", "link" => "a link’s words", "reply" => "what it answers to",
          "paid" => "what was paid", "event" => "what happened, of an event", "odd" => "every other line",
          "drawn" => "a badge or avatar without a picture"
        }.freeze
        # What lines say of themselves: [data-kind="action"].
        ATTRIBUTES = {
          "data-kind" => "said, action, reply, paid, or of an event what it is", "data-highlight" => "mentions, first, paid, moderators",
          "data-alone" => "there where a line is emotes only", "data-first" => "there on a person’s first line", "data-event" => "there on events",
          "data-badge" => "the kind of a badge"
        }.freeze
        PSEUDO = %w[before after first-child last-child nth-child nth-last-child first-letter first-line not is where has].freeze
        # Custom properties that are set for each piece, to be used or set anew.
        PROPERTIES = %w[--text-face --text-size --text-weight --text-colour --text-around --text-case --text-spacing --line-spacing
          --name --name-rgb --feed-rgb --one-name --name-size --name-weight --name-around --time-size --time-colour --plate-rgb --plate-opacity
          --plate-padding --plate-round --plate-border --plate-border-colour --plate-shadow --gap --mark-size --badge-size --avatar-size
          --avatar-round --emote-size --line-turn].freeze
        # Classes of the host's own markup.
        OWN_CLASS = /\Aown-[a-z0-9-]{1,40}\z/

        module_function

        def class?(name) = CLASSES.key?(name) || name.match?(OWN_CLASS)
      end
    end
  end
end
