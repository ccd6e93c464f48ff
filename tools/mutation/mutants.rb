# frozen_string_literal: true

require "parser/current"

module Mutation
  # A method changed in one place.
  #
  # owner:: the class or module it is in, by name; singleton:: whether it is a class method; line:: of the place
  # was, now:: what stood there and what stands there instead; source:: of the whole method
  Mutant = Struct.new(:file, :owner, :name, :singleton, :first_line, :line, :was, :now, :source) do
    def to_s = "#{file}:#{line}  #{was.lines.first.strip} → #{now.empty? ? "nothing" : now.lines.first.strip}"
  end

  # Small faults that somebody could make, one at a time: another comparison, a condition turned round, another number, a statement
  # left out.
  class Mutants
    OTHER = {
      "<" => "<=", "<=" => "<", ">" => ">=", ">=" => ">", "==" => "!=", "!=" => "==", "+" => "-", "-" => "+", "*" => "/", "/" => "*",
      "any?" => "none?", "none?" => "any?", "all?" => "any?", "first" => "last", "last" => "first", "min" => "max", "max" => "min",
      "select" => "reject", "reject" => "select", "min_by" => "max_by", "max_by" => "min_by", "positive?" => "negative?",
      "zero?" => "positive?", "empty?" => "any?", "shift" => "pop", "pop" => "shift", "unshift" => "push", "find" => "reject",
      "&" => "|", "|" => "&", "floor" => "ceil", "ceil" => "floor"
    }.freeze

    NOTHING = %i[nil false].freeze
    # As the parser calls them, and what stands there then.
    SWITCHED = {"true" => "false", "false" => "true"}.transform_keys(&:to_sym).freeze

    # @param file [String] path, as it is to be named
    # @param source [String]
    def initialize(file, source)
      @file = file
      @source = source
    end

    # @return [Array<Mutant>]
    def all
      @found = []
      walk(Parser::CurrentRuby.parse(@source, @file), [])
      @found
    end

    private

    def walk(node, owners)
      return unless node.is_a?(Parser::AST::Node)

      case node.type
      when :class, :module then node.children.drop(1).each { |child| walk(child, owners + [node.children.first.loc.expression.source]) }
      when :def, :defs then method(node, owners)
      when :casgn then named_struct(node, owners)
      else node.children.each { |child| walk(child, owners) }
      end
    end

    # Name = Struct.new(…) do … end is a class as well.
    def named_struct(node, owners)
      name, value = node.children.last(2)
      walk(value, value.is_a?(Parser::AST::Node) && value.type == :block ? owners + [name.to_s] : owners)
    end

    def method(node, owners)
      singleton = node.type == :defs
      name, body = singleton ? node.children.values_at(1, 3) : node.children.values_at(0, 2)
      return if body.nil? || owners.empty?

      @method = [owners.join("::"), name, singleton, node.loc.expression]
      places(body)
    end

    def places(node)
      return unless node.is_a?(Parser::AST::Node)

      place(node)
      node.children.each { |child| places(child) }
    end

    def place(node)
      case node.type
      when :send, :csend then other_call(node)
      when :int then put(node.loc.expression, (node.children.first + 1).to_s)
      when *SWITCHED.keys then put(node.loc.expression, SWITCHED.fetch(node.type))
      when :and then put(node.loc.operator, "||")
      when :or then put(node.loc.operator, "&&")
      when :if then turned(node.children.first)
      when :begin then left_out(node)
      end
    end

    def other_call(node)
      receiver, name, = node.children
      other = OTHER[name.to_s]
      put(node.loc.selector, other) if receiver && other && node.loc.selector.source == name.to_s
      put(node.loc.expression, node.children[0].loc.expression.source) if name == :! && node.loc.selector.source == "!"
    end

    def turned(condition) = put(condition.loc.expression, "!(#{condition.loc.expression.source})")

    # Each statement of several, but for the one whose value counts.
    def left_out(node)
      return unless node.loc.begin.nil?

      node.children.each_cons(2) { |statement, _| put(statement.loc.expression, "nil") unless needed?(statement) }
    end

    # Without it what follows could not even begin, or would be the same: a variable that is not set is nil.
    def needed?(statement)
      %i[lvasgn masgn op_asgn or_asgn].include?(statement.type) || (statement.type == :ivasgn && NOTHING.include?(statement.children[1]&.type))
    end

    def put(range, other)
      return if range.nil?

      owner, name, singleton, whole = @method
      from = range.begin_pos - whole.begin_pos
      source = whole.source.dup
      source[from...(from + range.size)] = other
      @found << Mutant.new(@file, owner, name, singleton, whole.line, range.line, range.source, other, source)
    end
  end
end
