# frozen_string_literal: true

module Bavard
  module Web
    # Where what somebody brought is kept, by what it is.
    class FilesThere
      # @param site [Site]
      def initialize(site)
        @site = site
      end

      # @param kind [String] picture, figure, film, font or sound
      # @param id [String]
      # @return [String, nil] its file, where it is there
      def path(kind, id)
        path = case kind
               when "film" then File.join(@site.films, "#{id}.webm")
               when "font" then File.join(@site.faces, "#{id}.woff2")
               when "sound" then File.join(@site.sounds, "#{id}.ogg")
               else @site.cabinet.find("#{id}-4.webp")
        end
        path if path && File.exist?(path)
      end
    end
  end
end
