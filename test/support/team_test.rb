# frozen_string_literal: true

require_relative "web_test"

# A show with more people than its owner, each with a browser of their own.
class TeamTest < WebTest
  # Who is signed in, each with a browser of their own.
  def as(name)
    @here[:csrf] = @csrf if @here
    @here = (@people ||= {})[name] ||= {}
    @csrf = @here[:csrf]
    with_session(name) { yield }
  end

  def setup
    super
    as(:owner) { sign_up }
    @show_record = @record
  end

  def invite(role, name: "Teo")
    as(:owner) { send_form("/people/invite", {"role" => role, "name" => name})["link"][%r{/people/join/[\w-]+}] }
  end

  def join(link, person: :teo)
    as(person) do
      sign_up(email: "#{person}@reedmere.example", show: "#{person}'s own")
      token = get(link).body[/name="csrf" value="([^"]+)"/, 1]
      post link, {"csrf" => token}
    end
  end
end
