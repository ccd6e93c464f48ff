# frozen_string_literal: true

module Bavard
  module Core
    module Dress
      # A picture that stands for a word.
      #
      # code:: the word, such as ":wren:"; picture:: the id of a kept picture
      # overlay:: whether it is laid over the emote before it; any_case:: whether the code counts in any case
      # animated:: whether it moves; ratio:: its width for one of height
      Emote = Struct.new(:id, :code, :picture, :overlay, :any_case, :animated, :ratio)

      # A set of emotes, of one feed or of the host.
      #
      # on:: whether it is worn at all; off_feeds:: ids of feeds it is not worn on
      # feed_id:: of a platform's own emotes, which come with each line and are never looked for in a text; else nil
      Shelf = Struct.new(:id, :name, :on, :off_feeds, :emotes, :feed_id) do
        # @param other_feed_id [Integer, nil]
        # @return [Boolean] whether it is drawn in lines of that feed
        def worn_on?(other_feed_id)
          on && !off_feeds.include?(other_feed_id)
        end

        # @return [Boolean] whether it is found by its code, and not by where its platform says it stands
        def looked_for?
          on && feed_id.nil?
        end
      end

      # Words that become a picture, whichever way they are written: "reed warbler".
      Phrase = Struct.new(:id, :words, :emote)
    end
  end
end
