# frozen_string_literal: true

require "etc"
require "fileutils"

module Bavard
  module Start
    # Started as root, the application and the simulated platforms run as a user who owns what they keep and nothing else: neither the
    # database's files nor the superuser's password, which stay with whom they belong to. Where that user cannot be made, or cannot
    # get at the program, they run as root all the same, and why is said.
    class LeastRights
      USER = "bavard"
      # What stays with root, who opens the logs: where somebody else could put a link in their place, root would write through it. The
      # database's files stay with PostgreSQL's user.
      OURS = %w[lock log *.password standins.json platforms.json].freeze
      # Own entries may be made in there, and nobody else's taken away.
      SHARED = 0o1775

      # @return [String, nil] why the parts run as root, where they do
      attr_reader :instead

      # @param data [DataFolder]
      # @param project [String] the program's folder
      # @param root [Boolean] whether we are root
      def initialize(data, project, root: Process.uid.zero?)
        @data = data
        @project = project
        @root = root
      end

      # @return [LeastRights] with everything that the parts need to be theirs
      def prepare
        FileUtils.rm_rf(temporary)
        FileUtils.mkdir_p([temporary, @data.path("log")])
        return self unless @root

        @instead = missing
        hand_over unless @instead
        self
      end

      # @return [Array<String>] the command as it is to be run
      def command(*command)
        return command unless @root && !@instead

        ["setpriv", "--reuid=#{USER}", "--regid=#{USER}", "--clear-groups", "--no-new-privs", "--", *command]
      end

      # @return [Hash{String => String}] where they find what is theirs
      def env = {"TMPDIR" => temporary, "HOME" => @data.root}

      private

      def temporary = @data.path("temporary")

      def missing
        return "there is no user #{USER}, and none could be made" unless known? || make
        return "the user #{USER} has no way to #{@project}" unless can?("-r", File.join(@project, "lib/bavard/serve.rb"))

        "the user #{USER} has no way into #{@data.root}" unless can?("-x", @data.root)
      end

      def known?
        Etc.getpwnam(USER)
      rescue ArgumentError
        false
      end

      def make = quiet("useradd", "--system", "--user-group", "--no-create-home", "--home-dir", "/nonexistent", "--shell", "/usr/sbin/nologin", USER)
      def can?(what, path) = quiet(*command("test", what, path))
      def quiet(*command) = system(*command, in: File::NULL, out: File::NULL, err: File::NULL)

      # As often as a start comes, and only what is not theirs yet.
      def hand_over
        File.chown(nil, Etc.getpwnam(USER).gid, @data.root)
        File.chmod(SHARED, @data.root)
        ours = OURS.flat_map { |name| ["-o", "-path", @data.path(name)] }
        system("find", @data.root, "-mindepth", "1", "(", "-path", @data.path("postgres"), *ours, ")", "-prune", "-o", "!", "-user", USER,
          "-exec", "chown", "-h", "#{USER}:#{USER}", "{}", "+")
      end
    end
  end
end
