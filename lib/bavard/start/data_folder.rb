# frozen_string_literal: true

require "etc"
require "fileutils"
require "securerandom"
require_relative "../error"

module Bavard
  module Start
    # Where the database and files live.
    class DataFolder
      KEY_BYTES = 64
      LEAST_FREE_KB = 100 * 1024
      # A disk that does not answer is waited for no longer.
      DF_S = 5

      # There is no room on its disk.
      class Full < Error; end

      attr_reader :root

      # @param env [Hash] as ENV
      # @param project [String] the checkout, whose var/ is used where PostgreSQL's user can get at it
      # @param user [String, nil] who PostgreSQL runs as, where that is not us
      # @return [String]
      def self.choose(env, project, user)
        wanted = env["BAVARD_DATA"].to_s
        return File.expand_path(wanted) unless wanted.empty?

        near = File.join(project, "var")
        reachable?(project, user) ? near : "/var/lib/bavard/#{project.gsub(/\W+/, "-").delete_prefix("-")}"
      end

      # @return [Boolean] whether that user may pass through every folder down to this one
      def self.reachable?(folder, user)
        return true unless user

        who = Etc.getpwnam(user)
        path = File.expand_path(folder)
        loop do
          return false if File.exist?(path) && !passable?(File.stat(path), who)
          return true if path == "/"

          path = File.dirname(path)
        end
      end

      def self.passable?(stat, who)
        return stat.mode.anybits?(0o100) if stat.uid == who.uid
        return stat.mode.anybits?(0o010) if stat.gid == who.gid

        stat.mode.anybits?(0o001)
      end
      private_class_method :passable?

      def initialize(root)
        @root = root
      end

      def path(*names)
        File.join(root, *names)
      end

      # Makes the folder and takes it for this process alone.
      # @raise [Bavard::Error] where it cannot be written to, is full, or belongs to another Bavard just now
      def lock
        FileUtils.mkdir_p([root, path("mail")])
        @lock = File.open(path("lock"), File::RDWR | File::CREAT, 0o600)
        unless @lock.flock(File::LOCK_EX | File::LOCK_NB)
          raise Error, "Another Bavard uses #{root} just now. Give this one a folder of its own with BAVARD_DATA."
        end

        self
      rescue SystemCallError => error
        raise Error, "Cannot write to #{root} (#{error.class.name.split("::").last}). Name another folder with BAVARD_DATA, or make this one yours."
      end

      # @return [String] bytes that stay the same, made at the first call
      def key(name)
        file = path("#{name}.key")
        write("#{name}.key", SecureRandom.random_bytes(KEY_BYTES), perm: 0o600) unless File.size?(file)
        File.binread(file)
      end

      # @return [String] what a {Store::SecretBox} of feeds' secrets is locked with
      def feeds_key = key("feeds")[0, 32]

      # Whole or not at all: whoever is killed in between leaves what was there before.
      #
      # @param name [String]
      # @param bytes [String]
      def write(name, bytes, perm: 0o644)
        File.open(path("#{name}.new"), "wb", perm) do |file|
          file.write(bytes)
          file.fsync
        end
        File.rename(path("#{name}.new"), path(name))
      end

      # @return [String] with which the first account is made where nobody else may make one
      def begin_key = key("begin").unpack1("H*")[0, 32]

      # @return [Integer, nil] kilobytes left on the disk; nil where nobody can say
      def free_kb
        IO.popen(["timeout", DF_S.to_s, "df", "-Pk", root], &:read).lines.last.to_s.split[3]&.to_i
      end

      # @raise [Full]
      def check_room
        left_kb = free_kb
        raise Full, full(left_kb) if left_kb && left_kb < LEAST_FREE_KB
      end

      private

      def full(left_kb)
        "The disk that holds #{root} is full (#{left_kb / 1024} MB left, #{LEAST_FREE_KB / 1024} MB are needed). Make room, or name " \
          "another folder with BAVARD_DATA."
      end
    end
  end
end
