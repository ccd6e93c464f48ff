# frozen_string_literal: true

require "json"
require "open3"

module Suite
  # Which files of tests a change can affect: those that rest on a changed file by what they require, and those that see it in a browser by
  # the page it belongs to. What would take more than a minute is left out, the slowest first, and named.
  class Affected
    # Of all processes together.
    MOST_S = 100
    # Files that pages of a station are made of, by how tests get there.
    PAGES = %r{assets/(?:js|css)/(\w+)|web/stations/(\w+)/|web/(links|accounts)/}
    # Where a station's files are called otherwise than its address.
    ADDRESSES = {"link" => "open_screen", "links" => "open_screen",
                 "lines" => "open_screen", "air" => "/links", "cues" => "/dress/cues", "cast" => "/dress/cast",
                 "files" => "/dress/files", "fellows" => "/dress/fellows", "sign_in" => "make_account", "accounts" => "make_account"}.freeze
    # What every page has.
    EVERYWHERE = %w[house all again].freeze
    # That cost of a file of which nothing is known.
    UNKNOWN_S = {"system" => 30, "start" => 60, "fault" => 40}.freeze

    # @param root [String] the checkout
    # @param times [Hash{String => Numeric}] seconds that each file took last
    def initialize(root, times)
      @root = root
      @times = times
      @rests_on = {}
    end

    # @param tests [Array<String>] paths
    # @return [Array<String>] those to be run
    def of(tests)
      changed = changed_files
      affected = tests.select { |test| changed.intersect?(all_of(File.expand_path(test))) || sees?(test, changed) }
      within(affected)
    end

    private

    def changed_files
      said, = Open3.capture2("git", "-C", @root, "status", "--porcelain", "--untracked-files=all", "--no-renames")
      said.lines.map { |line| File.join(@root, line[3..].chomp.delete('"')) }
    end

    # @return [Array<String>] the file, and all it requires
    def all_of(file)
      found = [file]
      found.each { |one| found.concat(required_by(one) - found) }
    end

    def required_by(file)
      @rests_on[file] ||= File.exist?(file) ? File.read(file).scan(/^\s*require_relative "([^"]+)"/).flatten.map { |path| ruby(path, file) } : []
    end

    def ruby(path, file) = "#{File.expand_path(path, File.dirname(file)).delete_suffix(".rb")}.rb"

    # A test in a browser sees what its pages are made of.
    def sees?(test, changed)
      return false unless test.include?("/system/")

      text = File.read(test)
      changed.any? do |file|
        page = PAGES.match(file).to_a.drop(1).compact.first or next
        EVERYWHERE.include?(page) || text.include?(ADDRESSES.fetch(page, "/#{page}"))
      end
    end

    def within(affected)
      spent = 0
      taken, left = affected.sort_by { |test| seconds(test) }.partition { |test| (spent += seconds(test)) <= MOST_S }
      warn "Left out for time: #{left.map { |test| name(test) }.join(", ")}" if left.any?
      taken
    end

    def seconds(test) = @times[name(test)] || UNKNOWN_S.fetch(name(test).split("/")[1], 1)
    def name(test) = test[%r{test/.*\z}]
  end
end
