# frozen_string_literal: true

require_relative "../error"

module Bavard
  module Start
    # What bin/install put onto a server, as its unit starts it: whoever types bin/admin there means that one, and need not say where it is.
    module Installed
      PROGRAM = "/opt/bavard"
      SETTINGS = "/etc/bavard/bavard.env"
      DATA = "/var/lib/bavard"
      # As systemd reads them: nothing in them is substituted.
      SETTING = /\A([A-Za-z_][A-Za-z0-9_]*)=(.*)\z/

      # @param env [Hash] as ENV; what was typed counts before what is set there
      # @param project [String] where the program stands
      # @param settings [String] a file of them, which need not be there
      # @return [Hash] as ENV
      # @raise [Bavard::Error] where somebody asks who may not read it
      def self.env(env, project, settings = SETTINGS)
        return env unless project == PROGRAM && env["BAVARD_DATA"].to_s.empty?

        {"BAVARD_DATA" => DATA, **read(settings), **env.to_h.reject { |_name, value| value.empty? }}
      rescue Errno::EACCES
        raise Error, "This takes root: it reads #{settings}."
      end

      # @return [Hash{String => String}]
      def self.read(file)
        return {} unless File.exist?(file)

        File.readlines(file, chomp: true).filter_map { |line| SETTING.match(line.strip)&.captures }.to_h { |name, value| [name, bare(value.strip)] }
      end

      def self.bare(value) = value[/\A(["'])(.*)\1\z/m, 2] || value
      private_class_method :read, :bare
    end
  end
end
