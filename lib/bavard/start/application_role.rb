# frozen_string_literal: true

require "pg"
require "securerandom"

module Bavard
  module Start
    # As whom the application speaks to its PostgreSQL: a role that owns its database and may nothing else, so that whatever somebody
    # got it to ask, no file is read, no program run and no other role made. Only the start speaks as PostgreSQL's superuser.
    class ApplicationRole
      NAME = "bavard_app"
      DATABASE = "bavard"
      # What is there from before this role was, each with what belongs to it.
      HAND_OVER = <<~SQL.freeze
        DO $$ DECLARE one regclass; BEGIN
          FOR one IN SELECT c.oid FROM pg_class c WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'p', 'v', 'm', 'S')
            AND pg_get_userbyid(c.relowner) <> '#{NAME}'
            AND NOT EXISTS (SELECT FROM pg_depend d WHERE d.objid = c.oid AND d.classid = 'pg_class'::regclass AND d.deptype IN ('a', 'i', 'e'))
          LOOP EXECUTE format('ALTER TABLE %s OWNER TO #{NAME}', one); END LOOP;
        END $$
      SQL

      # @param data [DataFolder]
      # @param makes_more [Boolean] whether it may make further databases, as tests do
      def initialize(data, makes_more: false)
        @file = data.path("application.password")
        @makes_more = makes_more
      end

      def password = File.read(@file)

      # Makes the role and its database where they are not there, or gives it the one that is.
      #
      # @yield [database] with a connection to that database as the superuser, to be closed by us
      def prepare
        with(yield("postgres")) do |admin|
          make(admin) unless known?(admin)
          admin.exec("CREATE DATABASE #{DATABASE} OWNER #{NAME}") unless owner(admin)
          return if owner(admin) == NAME

          with(yield(DATABASE)) { |inside| inside.exec(HAND_OVER) }
          admin.exec("ALTER DATABASE #{DATABASE} OWNER TO #{NAME}")
        end
      end

      private

      def known?(admin) = File.size?(@file) && admin.exec_params("SELECT FROM pg_roles WHERE rolname = $1", [NAME]).any?

      def owner(admin)
        admin.exec_params("SELECT pg_get_userbyid(datdba) FROM pg_database WHERE datname = $1", [DATABASE]).values.flatten.first
      end

      # The role may be there without its password, where a start was cut off in between.
      def make(admin)
        password = SecureRandom.alphanumeric(32)
        File.write("#{@file}.new", password, perm: 0o600)
        admin.exec("CREATE ROLE #{NAME}") if admin.exec_params("SELECT FROM pg_roles WHERE rolname = $1", [NAME]).none?
        admin.exec("ALTER ROLE #{NAME} LOGIN NOSUPERUSER NOCREATEROLE #{"NO" unless @makes_more}CREATEDB PASSWORD '#{password}'")
        File.rename("#{@file}.new", @file)
      end

      def with(connection)
        yield connection
      ensure
        connection&.close
      end
    end
  end
end
