# frozen_string_literal: true

module Bavard
  module Core
    module Chat
      # A name as somebody would say it: "kestrel ann" for "kestrel_ann", "bittern by bittern" for "bittern.by.bittern".
      module SpokenName
        SEPARATORS = /[\s_.\-·•|~]+/
        CAMEL = /(?<=\p{Ll})(?=\p{Lu})/
        DIGITS = /(?<=\p{L})(?=\p{N})|(?<=\p{N})(?=\p{L})/
        # Nobody says "xXx" or more than two of a letter in a row.
        FRAME = /\A[xX]{1,3}(?=[\s_.-])|(?<=[\s_.-])[xX]{1,3}\z/
        STRETCHED = /(\p{L})\1{2,}/

        module_function

        # @param name [String] display name or login
        # @return [String]
        def of(name)
          spoken = name.gsub(FRAME, " ").gsub(CAMEL, " ").gsub(DIGITS, " ").gsub(SEPARATORS, " ").gsub(STRETCHED, '\1\1').strip
          spoken.empty? ? name : spoken
        end
      end
    end
  end
end
