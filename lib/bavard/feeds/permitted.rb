# frozen_string_literal: true

module Bavard
  module Feeds
    # What kinds of feeds have in common that read as a guest, or with a platform's permission.
    module Permitted
      # @param feed [Store::Feeds::Feed]
      # @return [Boolean] whether lines can be sent there
      def answers?(feed) = !feed.permission.nil? && feed.permission.may?("write")

      # @return [String] how it is read
      def words(feed)
        standing = feed.permission ? "signed in as #{feed.permission.account}" : "reading as a guest"
        self::LABEL ? "#{self::LABEL}, #{standing}" : standing.sub(/\A./, &:upcase)
      end
    end
  end
end
