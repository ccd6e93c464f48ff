# frozen_string_literal: true

module Bavard
  module Core
    module Flurry
      # Where emotes may fly: a box, or what is left of it around the spaces that are kept free.
      #
      #   Room.around(Box.new(0, 0, 1920, 1080), [Box.new(1400, 600, 480, 420)])   # => the largest boxes clear of it
      Box = Struct.new(:x, :y, :width, :height) do
        def right = x + width
        def bottom = y + height
        def area = width * height

        # @return [Boolean] whether they have more than an edge in common
        def meets?(other) = x < other.right && other.x < right && y < other.bottom && other.y < bottom

        # @return [Boolean] whether the other lies wholly within it
        def covers?(other) = x <= other.x && y <= other.y && right >= other.right && bottom >= other.bottom

        # @return [Box, nil] what both have in common
        def common(other)
          return unless meets?(other)

          left = [x, other.x].max
          top = [y, other.y].max
          Box.new(left, top, [right, other.right].min - left, [bottom, other.bottom].min - top)
        end
      end

      # See above.
      module Room
        # Narrower than this nothing flies.
        NARROWEST_PX = 24
        MOST_SPACES = 12

        module_function

        # @param whole [Box]
        # @param spaces [Array<Box>]
        # @return [Array<Box>] boxes that meet no space and none of which lies within another, the largest first; all of it
        #   where spaces leave nothing
        def around(whole, spaces)
          spaces = spaces.select { |space| space.meets?(whole) }.first(MOST_SPACES)
          return [whole] if spaces.empty?

          free = spaces.reduce([whole]) { |boxes, space| boxes.flat_map { |box| beside(box, space) }.uniq }
          free = free.select { |box| box.width >= NARROWEST_PX && box.height >= NARROWEST_PX }
          free = free.reject { |box| free.any? { |other| !other.equal?(box) && other.covers?(box) } }.sort_by { |box| -box.area }
          free.empty? ? [whole] : free
        end

        # The four strips that a space leaves of a box, each as long as it can be.
        def beside(box, space)
          return [box] unless box.meets?(space)

          level = [[box.x, space.x - box.x], [space.right, box.right - space.right]].map { |x, width| Box.new(x, box.y, width, box.height) }
          upright = [[box.y, space.y - box.y], [space.bottom, box.bottom - space.bottom]].map { |y, height| Box.new(box.x, y, box.width, height) }
          (level + upright).select { |strip| strip.width.positive? && strip.height.positive? }
        end
        private_class_method :beside
      end
    end
  end
end
