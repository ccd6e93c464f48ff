# frozen_string_literal: true

module Bavard
  module Web
    # Where templates lie: each beside the app that draws it, under a name of its own. For Sinatra, as helpers.
    module Views
      FOLDERS = Dir[File.join(__dir__, "stations/*/"), File.join(__dir__, "links/")].freeze

      def find_template(_views, name, engine, &path)
        FOLDERS.each { |folder| super(folder, name, engine, &path) }
      end
    end
  end
end
