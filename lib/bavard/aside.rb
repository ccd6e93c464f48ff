# frozen_string_literal: true

module Bavard
  # What runs beside the application, in processes of its own, and gives way to it: pictures, films, sounds, replays, exports.
  module Aside
    # How much it gives way, as nice(1) counts.
    NICE = Integer(ENV.fetch("BAVARD_NICE", "10"), 10).clamp(0, 19)
    # By util-linux: no program that is run from there gets more rights than it has.
    NO_MORE_RIGHTS = %w[setpriv --no-new-privs].freeze
    # And no network, where the system lets us take it away.
    NO_NETWORK = (Process.uid.zero? ? %w[unshare --net] : %w[unshare --user --map-current-user --net]).freeze
    # Of whatever touches bytes that somebody brought.
    FILES = 256
    LIMITS = {rlimit_nofile: FILES, rlimit_core: 0}.freeze

    LOOKS_FOR_GEMS = %r{-r\S*bundler/setup}

    module_function

    # What a script of ours finds in its environment besides: where its gems are, which this process has looked for already. Looking for
    # them once more is two thirds of what a short process takes. None of them may ask for RubyGems itself, as some do.
    #
    # @param env [Hash] as ENV
    # @return [Hash] nothing where this process did not look either
    def found(env = ENV)
      return {} unless env["RUBYOPT"].to_s.match?(LOOKS_FOR_GEMS)

      {"RUBYOPT" => "--disable=gems", "RUBYLIB" => $LOAD_PATH.join(File::PATH_SEPARATOR)}
    end

    # @return [Array<String>] the command as it is to be run
    def command(*command) = ["nice", "-n", NICE.to_s, *command]

    # @return [Array<String>] the same for what touches bytes that somebody brought
    def sealed(*command) = command(*possible(NO_MORE_RIGHTS), *possible(NO_NETWORK), *command)

    # @return [Boolean] whether those have no network
    def cut_off? = !possible(NO_NETWORK).empty?

    # @return [Array<String>] itself, or nothing where this system does not do that
    def possible(prefix)
      @possible ||= {}
      @possible.fetch(prefix) { @possible[prefix] = system(*prefix, "true", in: File::NULL, out: File::NULL, err: File::NULL) ? prefix : [] }
    end
    private_class_method :possible
  end
end
