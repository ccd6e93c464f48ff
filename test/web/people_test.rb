# frozen_string_literal: true

require_relative "../support/team_test"

# Roles: what they allow, how they are given, and that they end at once.
class PeopleTest < TeamTest
  def account_of(email) = db[:accounts].where(email:).get(:id)

  def test_a_moderator_acts_on_lines_but_changes_neither_stages_nor_rules
    link = invite("moderator")
    join(link)
    as(:teo) do
      assert_equal "/prompter/", URI(last_response.headers["location"]).path
      get "/prompter/"
      assert_equal 200, last_response.status
      assert_includes last_response.body, "Test watch"
      %w[/feeds /stage /links /dress].each { |path| assert_equal 403, get(path).status, path }
      assert_equal 200, get("/gate/").status
      @csrf = token_on("/gate/")
      assert_includes send_json("/gate/keep", {"rules" => []})["error"], "moderator"
      assert_equal 403, last_response.status
      send_form("/gate/left-out", {"name" => "egg_thief"})
      assert_equal 200, last_response.status
      send_json("/gate/brake", {"kind" => "hold_all", "minutes" => "5"})
      assert_equal 200, last_response.status
      send_form("/people/invite", {"role" => "director", "name" => "Me"})
      assert_equal 403, last_response.status
    end
    until_written
    assert_equal([%w[leave_out Teo], %w[brake Teo]], stores.deeds.latest(@show_record.id).last(2).map { |deed| [deed.what, deed.by] })
  end

  def test_a_reader_only_reads
    join(invite("reader"))
    as(:teo) do
      assert_equal 200, get("/prompter/").status
      @csrf = token_on("/log/")
      send_json("/prompter/act", {"do" => "pull", "line" => 1})
      assert_equal 403, last_response.status
      assert_equal 403, get("/gate/").status
      assert_includes last_response.body, %(<a href="/prompter/">To the prompter</a>)
      assert_equal 200, get("/log/").status
    end
  end

  def test_an_invitation_works_once_and_can_be_taken_back
    link = invite("director")
    join(link)
    as(:sunniva) do
      sign_up(email: "sunniva@reedmere.example", show: "Another")
      assert_equal 404, get(link).status
      assert_includes last_response.body, "This invitation was used or taken back"
    end
    second = invite("reader", name: "Sunniva")
    as(:owner) { send_form("/people/invitations/#{db[:invitations].get(:id)}/back") }
    as(:sunniva) { assert_equal 404, get(second).status }
  end

  def test_whoever_is_in_no_show_any_more_is_told_so_and_can_sign_out
    as(:owner) do
      db[:shows].delete
      assert_equal 404, get("/feeds/").status
      ["<!doctype html>", "You are in no show any more.", %(href="/account/logout")].each { |part| assert_includes last_response.body, part }
    end
  end

  def test_whoever_is_invited_and_has_no_account_comes_back_to_the_invitation
    link = invite("reader")
    as(:newcomer) do
      get link
      assert_equal 302, last_response.status
      sign_up(email: "newcomer@reedmere.example", show: "Own")
      assert_equal link, URI(last_response.headers["location"]).path
    end
  end

  def test_a_role_changes_and_ends_at_once
    join(invite("director"))
    account = account_of("teo@reedmere.example")
    as(:teo) { assert_equal 200, get("/stage/").status }
    as(:owner) { send_form("/people/#{account}/role", {"role" => "reader"}) }
    as(:teo) { assert_equal 403, get("/stage/").status }
    as(:owner) { send_form("/people/#{account}/remove") }
    as(:teo) do
      get "/prompter/"
      refute_includes last_response.body, "Test watch"
    end
    assert_empty stores.team.of_show(@show_record.id)
  end

  def test_what_was_done_is_filtered_and_taken_along
    as(:owner) do
      send_form("/gate/left-out", {"name" => "egg_thief"})
      send_form("/gate/left-out/back", {"name" => "egg_thief"})
      until_written
      assert_includes get("/people/", {"what" => "leave_out"}).body, "left out egg_thief"
      refute_includes get("/people/", {"about" => "somebody"}).body, "left out egg_thief"
      rows = CSV.parse(get("/people/deeds.csv").body, headers: true)
      assert_equal([%w[take_back Odalys], %w[leave_out Odalys]], rows.map { |row| [row["what"], row["by"]] })
      assert_equal 1, get("/people/deeds.jsonl", {"what" => "take_back"}).body.lines.size
      assert_equal 404, get("/people/deeds.exe").status
    end
  end

  def test_the_show_and_its_host_are_called_otherwise_at_once
    as(:owner) do
      assert_equal({"name" => "Kiln <b>night</b>", "host" => "Maren"}, send_form("/people/names", "name" => " Kiln <b>night</b> ", "host_name" => "Maren"))
      assert_includes get("/people/").body, "Kiln &lt;b&gt;night&lt;/b&gt;"
      [["", "Maren"], ["Kiln", " "]].each do |name, host|
        send_form("/people/names", "name" => name, "host_name" => host)
        assert_equal 422, last_response.status
      end
    end
    wait_for("it to be kept") { db[:shows].where(id: @show_record.id).get(%i[name host_name]) == ["Kiln <b>night</b>", "Maren"] }
    show = @shows.run(@show_record.id)
    assert_equal ["rename", "Maren"], show.ask { |one| one.prompter.newest_deed("rename").then { |deed| [deed.what, deed.by] } }
    assert_equal %w[Maren Maren], show.ask { |one| [one.record.host_name, one.prompter.instance_variable_get(:@host)] }
  end

  def test_only_its_owner_calls_it_otherwise
    join(invite("director", name: "Teo"))
    as(:teo) do
      send_form("/people/names", "name" => "Mine", "host_name" => "Teo")
      assert_equal 403, last_response.status
    end
  end
end
