# frozen_string_literal: true

module Suite
  # What a process began, and what that began: a browser that goes on without whoever opened it takes a processor for good.
  module Descendants
    PARENT = /\A\d+ \(.*\) \S (\d+) /m

    module_function

    # @return [Array<Integer>] ids of processes
    def of(pid)
      children = Dir["/proc/[0-9]*/stat"].filter_map { |file| [File.basename(File.dirname(file)).to_i, parent(file)] }
        .group_by(&:last).transform_values { |all| all.map(&:first) }
      found = [pid]
      found.each { |one| found.concat(children.fetch(one, [])) }
      found.drop(1)
    end

    def kill(pid)
      Process.kill("KILL", pid)
    rescue Errno::ESRCH
      nil # it has ended by itself
    end

    # It may end while it is looked at.
    def parent(file)
      File.read(file)[PARENT, 1].to_i
    rescue SystemCallError
      nil
    end
    private_class_method :parent
  end
end
