# frozen_string_literal: true

require "etc"

module Bavard
  module Pictures
    # How long the processes of a group have had a processor: what a limit counts where other programs share the machine.
    module ProcessorTime
      TICKS_A_SECOND = Etc.sysconf(Etc::SC_CLK_TCK)
      # Of /proc/PID/stat, behind the program's name (proc(5)): the group, user and system time, and those of children that have ended.
      GROUP = 2
      TIMES = (11..14)

      module_function

      # @param group [Integer] id of a process group
      # @return [Float] seconds, of those that run and those they waited for
      def of(group)
        Dir.children("/proc").grep(/\A\d+\z/).sum { |pid| ticks(pid, group.to_s) }.fdiv(TICKS_A_SECOND)
      end

      def ticks(pid, group)
        fields = File.read("/proc/#{pid}/stat").rpartition(")").last.split
        fields[GROUP] == group ? fields[TIMES].sum(&:to_i) : 0
      rescue SystemCallError
        0
      end
      private_class_method :ticks
    end
  end
end
